import { fail, redirect } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { tooEasy } from '$lib/server/accounts/passwordStrength';
import { Password } from '$lib/server/accounts/person';
import { passCookies, toAccounts } from '$lib/server/accounts/signingIn';

const Join = z.object({
	code: z.string().trim().min(1, 'The code that a lead gave you.').max(60),
	password: Password
});
/** Tries are counted by address alone: one name for everybody would let a stranger keep all of them out. */
const accountFrom = (address: string): string => `whoever joins from ${address}`;

export const load = async ({ locals, url }) => {
	if (locals.member) redirect(303, '/me');
	const code = url.searchParams.get('code') ?? '';
	return { form: await superValidate({ code, password: '' }, zod4(Join), { errors: false }) };
};

export const actions = {
	default: async (event) => {
		const { people, failedTries, settings, log } = event.locals.services;
		const form = await superValidate(event.request, zod4(Join));
		const { code, password } = form.data;
		form.data.password = '';
		if (!form.valid) return fail(400, { form });
		const address = event.getClientAddress();
		if (failedTries.waitS(address, accountFrom(address)) > 0)
			return message(form, 'Too many tries. Wait a minute, then try again.', { status: 429 });
		const person = await people.invited(code);
		if (!person) {
			failedTries.failedOnce(address, accountFrom(address));
			return setError(
				form,
				'code',
				'This code opens nothing: it was used, or is too old. Ask a lead for another.'
			);
		}
		const easy = await tooEasy(password, [person.name, person.username, await settings.read('shopName')]);
		if (easy) return setError(form, 'password', easy);
		if (!(await people.comeIn(code, password)))
			return setError(form, 'code', 'This code was used meanwhile.');
		log.info({ member: person.username }, 'came in by a code');
		const { username } = person;
		passCookies(
			await toAccounts('/sign-in/username', event, { username, password }),
			event.cookies,
			event.locals.services
		);
		redirect(303, '/');
	}
};
