import { fail, redirect } from '@sveltejs/kit';
import { passCookies, toAccounts } from '$lib/server/accounts/signingIn';
import { wayBack } from '$lib/server/accounts/wayBack';

export const load = ({ locals, url }) => {
	const back = wayBack(url, locals.services.origin);
	if (locals.member) redirect(303, back);
	return { back };
};

export const actions = {
	default: async (event) => {
		const { failedTries, origin } = event.locals.services;
		const code = String((await event.request.formData()).get('code') ?? '')
			.trim()
			.slice(0, 60);
		// By address alone: one name for everybody would let a stranger keep all of them out. Tries at one account the accounts library counts.
		const address = event.getClientAddress();
		const account = `a second factor from ${address}`;
		if (failedTries.waitS(address, account) > 0)
			return fail(429, { error: 'Too many tries. Wait a minute, then try again.' });
		const digits = code.replace(/\s/g, '');
		const response = /^\d{6}$/.test(digits)
			? await toAccounts('/two-factor/verify-totp', event, { code: digits })
			: await toAccounts('/two-factor/verify-backup-code', event, { code });
		if (!response.ok) {
			failedTries.failedOnce(address, account);
			return fail(400, {
				error: 'That code does not open it. If a minute has passed, begin again with your password.'
			});
		}
		passCookies(response, event.cookies, event.locals.services);
		redirect(303, wayBack(event.url, origin));
	}
};
