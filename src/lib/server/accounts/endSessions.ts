import type { RequestEvent } from '@sveltejs/kit';
import { memberHere } from '../cases/access';

/** Ends one session of somebody, or all of them but the one that asks, and what they follow. @param only '' = all */
export async function endSessions(
	event: Pick<RequestEvent, 'locals'>,
	personId: string,
	only: string
): Promise<void> {
	const { people, streams } = event.locals.services;
	const which = only === '' ? { allBut: event.locals.sessionId } : { only };
	for (const id of await people.endSessions(personId, which, memberHere(event))) streams.endOf(id);
}
