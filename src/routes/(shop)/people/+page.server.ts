import { fail } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { ROLES } from '$lib/server/accounts/members';
import { Person } from '$lib/server/accounts/person';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

const Invited = Person.omit({ password: true }).extend({ role: z.enum(ROLES).default('technician') });

export const load = async ({ locals }) => ({
	form: await superValidate(zod4(Invited)),
	people: (await locals.services.people.all()).map(({ lastSeen, ...person }) => ({
		...person,
		lastSeen: lastSeen && clock(lastSeen.toISOString())
	})),
	me: locals.member?.id,
	lockAfterMinutes: await locals.services.settings.read('lockAfterMinutes')
});

const Idle = z.coerce.number().int().min(0).max(240);

export const actions = {
	idle: async (event) => {
		const minutes = Idle.safeParse((await event.request.formData()).get('minutes') || 'nothing');
		if (!minutes.success) return fail(400, { idle: 'Minutes from 0 to 240; 0 is never.' });
		await event.locals.services.settings.write('lockAfterMinutes', minutes.data, memberHere(event));
		return { idleSaved: true };
	},
	invite: async (event) => {
		const form = await superValidate(event.request, zod4(Invited));
		if (!form.valid) return fail(400, { form });
		const { people, origin } = event.locals.services;
		const code = await people.invite(form.data, memberHere(event));
		if (!code.ok) return setError(form, 'username', code.error);
		return message(form, {
			name: form.data.name,
			code: code.value,
			href: `${origin}/join?code=${code.value}`
		});
	}
};
