import { error, fail, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { ROLES } from '$lib/server/accounts/members';
import { Person } from '$lib/server/accounts/person';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { endSessions } from '$lib/server/accounts/endSessions';

type PersonEvent = RequestEvent<{ id: string }>;

const Why = z.string().trim().min(1, 'Say why, in a few words.').max(300, 'Three hundred signs at most.');

export const load = async ({ locals, params }) => {
	const { people } = locals.services;
	const person = await people.find(params.id);
	if (!person) error(404, 'There is nobody of that kind here.');
	return {
		person: { ...person, lastSeen: person.lastSeen && clock(person.lastSeen.toISOString()) },
		isMe: locals.member?.id === person.id,
		sessions: (await people.sessions(person.id)).map(({ since, seen, ...one }) => ({
			...one,
			since: clock(since.toISOString()),
			seen: clock(seen.toISOString()),
			here: one.id === locals.sessionId
		}))
	};
};

const fieldsOf = async ({ request }: PersonEvent) => Object.fromEntries(await request.formData());
const answer = (done: { ok: boolean; error?: string }) =>
	done.ok ? { saved: true } : fail(409, { error: done.error });

export const actions = {
	rename: async (event) => {
		const name = Person.shape.name.safeParse((await fieldsOf(event)).name);
		if (!name.success) return fail(400, { error: name.error.issues[0]?.message });
		return answer(await event.locals.services.people.rename(event.params.id, name.data, memberHere(event)));
	},
	role: async (event) => {
		const { people, streams } = event.locals.services;
		const role = z.enum(ROLES).safeParse((await fieldsOf(event)).role);
		if (!role.success) return fail(400, { error: 'Choose a role.' });
		const sessions = await people.sessions(event.params.id);
		const done = await people.setRole(event.params.id, role.data, memberHere(event));
		if (done.ok) for (const { id } of sessions) streams.endOf(id);
		return answer(done);
	},
	reset: async (event) => {
		const { people, origin } = event.locals.services;
		const code = await people.reset(event.params.id, memberHere(event));
		return code.ok
			? { code: code.value, href: `${origin}/join?code=${code.value}` }
			: fail(409, { error: code.error });
	},
	shutOut: async (event) => {
		const { people, streams } = event.locals.services;
		const why = Why.safeParse((await fieldsOf(event)).why);
		if (!why.success) return fail(400, { error: why.error.issues[0]?.message });
		const sessions = await people.sessions(event.params.id);
		const done = await people.shutOut(event.params.id, why.data, memberHere(event));
		if (done.ok) for (const { id } of sessions) streams.endOf(id);
		return answer(done);
	},
	letIn: async (event) =>
		answer(await event.locals.services.people.letIn(event.params.id, memberHere(event))),
	factorOff: async (event) =>
		answer(await event.locals.services.people.takeSecondFactorOff(event.params.id, memberHere(event))),
	end: async (event) => {
		await endSessions(event, event.params.id, String((await fieldsOf(event)).session ?? ''));
		return { saved: true };
	}
};
