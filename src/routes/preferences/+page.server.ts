import { redirect } from '@sveltejs/kit';

const YEAR_S = 365 * 24 * 3600;

export const load = () => redirect(303, '/');

export const actions = {
	theme: async ({ request, cookies }) => {
		const form = await request.formData();
		const theme = form.get('theme') === 'bay' ? 'bay' : 'day';
		cookies.set('jaldi-theme', theme, {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			maxAge: YEAR_S,
			secure: false
		});
		const back = String(form.get('back') ?? '/');
		redirect(303, /^\/(?!\/)/.test(back) ? back : '/');
	}
};
