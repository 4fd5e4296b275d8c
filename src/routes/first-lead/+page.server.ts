import { basename } from 'node:path';
import { fail, redirect } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { Person } from '$lib/server/accounts/person';
import { passCookies, toAccounts } from '$lib/server/accounts/signingIn';

const FirstLead = Person.extend({
	code: z.string().trim().min(1, 'The code that stands at the server.').max(60)
});
/** Tries are counted by address alone: one name for everybody would let a stranger keep all of them out. */
const accountFrom = (address: string): string => `the first lead from ${address}`;

export const load = async ({ locals }) => {
	const { firstLead } = locals.services;
	if (!(await firstLead.isWanted())) redirect(303, '/sign-in');
	// Its name alone: where it lies is nobody's business who cannot see it.
	return { form: await superValidate(zod4(FirstLead)), file: basename(firstLead.file ?? '') };
};

export const actions = {
	default: async (event) => {
		const { services } = event.locals;
		const form = await superValidate(event.request, zod4(FirstLead));
		if (!form.valid) {
			form.data.password = '';
			return fail(400, { form });
		}
		const { code, ...person } = form.data;
		form.data.password = '';
		const address = event.getClientAddress();
		if (services.failedTries.waitS(address, accountFrom(address)) > 0)
			return message(form, 'Too many tries. Wait a minute, then try again.', { status: 429 });
		const made = await services.firstLead.make(code, person);
		if (!made.ok && made.error === 'late') redirect(303, '/sign-in');
		if (!made.ok) {
			services.failedTries.failedOnce(address, accountFrom(address));
			return setError(form, 'code', 'That is not the code that stands at the server.');
		}
		services.log.info({ member: person.username }, 'the first lead is made');
		passCookies(await toAccounts('/sign-in/username', event, person), event.cookies, services);
		redirect(303, '/');
	}
};
