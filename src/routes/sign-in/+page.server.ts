import { fail, redirect } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { passCookies, toAccounts } from '$lib/server/accounts/signingIn';
import { wayBack } from '$lib/server/accounts/wayBack';

const SignIn = z.object({
	username: z.string().trim().min(1, 'Your user name.').max(60),
	password: z.string().min(1, 'Your password.').max(200)
});

export const load = async ({ locals, url }) => {
	const back = wayBack(url, locals.services.origin);
	if (locals.member) redirect(303, back);
	if (await locals.services.firstLead.isWanted()) redirect(303, '/first-lead');
	return { form: await superValidate(zod4(SignIn)), back };
};

export const actions = {
	in: async (event) => {
		const form = await superValidate(event.request, zod4(SignIn));
		if (!form.valid) return fail(400, { form });
		const { failedTries } = event.locals.services;
		const [address, account] = [event.getClientAddress(), form.data.username.toLowerCase()];
		const tooMany = () => {
			form.data.password = '';
			return message(form, 'Too many tries from here. Wait a minute, then try again.', { status: 429 });
		};
		if (failedTries.waitS(address, account) > 0) return tooMany();
		const response = await toAccounts('/sign-in/username', event, form.data);
		form.data.password = '';
		if (response.status === 429) return tooMany();
		const said = (await response
			.clone()
			.json()
			.catch(() => null)) as {
			code?: string;
			message?: string;
			twoFactorRedirect?: boolean;
		} | null;
		// Their password is right, so this tells nobody else anything.
		if (said?.code === 'BANNED_USER') return message(form, said.message ?? '', { status: 403 });
		if (!response.ok) {
			failedTries.failedOnce(address, account);
			return setError(form, 'password', 'User name and password do not belong together.');
		}
		failedTries.succeeded(account);
		passCookies(response, event.cookies, event.locals.services);
		const back = wayBack(event.url, event.locals.services.origin);
		redirect(303, said?.twoFactorRedirect ? `/sign-in/code?back=${encodeURIComponent(back)}` : back);
	},
	out: async (event) => {
		if (event.locals.sessionId) event.locals.services.streams.endOf(event.locals.sessionId);
		passCookies(await toAccounts('/sign-out', event, {}), event.cookies, event.locals.services);
		redirect(303, '/sign-in');
	}
};
