import { redirect } from '@sveltejs/kit';

const YEAR_S = 365 * 24 * 3600;

/** What somebody likes on this device. */
const KEPT = { path: '/', httpOnly: true, sameSite: 'lax', maxAge: YEAR_S, secure: false } as const;

/** Where to go on: a page of ours. */
function backOf(form: FormData): string {
	const back = String(form.get('back') ?? '/');
	return /^\/(?!\/)/.test(back) ? back : '/';
}

export const load = () => redirect(303, '/');

export const actions = {
	theme: async ({ request, cookies }) => {
		const form = await request.formData();
		cookies.set('jaldi-theme', form.get('theme') === 'bay' ? 'bay' : 'day', KEPT);
		redirect(303, backOf(form));
	},
	keys: async ({ request, cookies }) => {
		const form = await request.formData();
		cookies.set('jaldi-keys', form.get('keys') === 'off' ? 'off' : 'on', KEPT);
		redirect(303, backOf(form));
	}
};
