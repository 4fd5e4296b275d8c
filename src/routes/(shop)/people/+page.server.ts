import { fail } from '@sveltejs/kit';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { ROLES } from '$lib/server/accounts/members';
import { Person } from '$lib/server/accounts/person';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

const Invited = Person.omit({ password: true }).extend({ role: z.enum(ROLES).default('technician') });

const MIN_PER_HOUR = 60;
/** 7.5 → "07:30". */
const asTime = (hour: number): string =>
	[Math.floor(hour), Math.round((hour % 1) * MIN_PER_HOUR)]
		.map((part) => String(part).padStart(2, '0'))
		.join(':');
const Hour = z.iso.time({ precision: -1 }).transform((text) => {
	const [hours = 0, minutes = 0] = text.split(':').map(Number);
	return hours + minutes / MIN_PER_HOUR;
});
const Hours = z
	.object({ opens: Hour, closes: Hour })
	.refine(({ opens, closes }) => opens < closes, 'It opens before it closes.');

export const load = async ({ locals }) => ({
	form: await superValidate(zod4(Invited)),
	people: (await locals.services.people.all()).map(({ lastSeen, ...person }) => ({
		...person,
		lastSeen: lastSeen && clock(lastSeen.toISOString())
	})),
	me: locals.member?.id,
	lockAfterMinutes: await locals.services.settings.read('lockAfterMinutes'),
	opens: asTime(await locals.services.settings.read('opensAtHour')),
	closes: asTime(await locals.services.settings.read('closesAtHour'))
});

const Idle = z.coerce.number().int().min(0).max(240);

export const actions = {
	idle: async (event) => {
		const minutes = Idle.safeParse((await event.request.formData()).get('minutes') || 'nothing');
		if (!minutes.success) return fail(400, { idle: 'Minutes from 0 to 240; 0 is never.' });
		await event.locals.services.settings.write('lockAfterMinutes', minutes.data, memberHere(event));
		return { idleSaved: true };
	},
	hours: async (event) => {
		const hours = Hours.safeParse(Object.fromEntries(await event.request.formData()));
		if (!hours.success) return fail(400, { hours: 'Two times of a day, the first before the second.' });
		const [{ settings }, by] = [event.locals.services, memberHere(event)];
		await settings.write('opensAtHour', hours.data.opens, by);
		await settings.write('closesAtHour', hours.data.closes, by);
		return { hoursSaved: true };
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
