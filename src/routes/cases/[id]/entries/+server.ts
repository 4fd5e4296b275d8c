import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { caseRowHere, loadCase, memberHere } from '$lib/server/cases/access';
import { addEntry } from '$lib/server/cases/addEntry';
import { learnSensor } from '$lib/server/cases/describeVehicle';
import { readSentEntry, refusedKind, SentEntry, WrittenEntry } from '$lib/server/cases/sentEntry';

export const _api: ApiRoute = {
	POST: {
		says: 'Adds an entry to the thread of a case.',
		takes: WrittenEntry,
		gives: jsonOf('Its id, its place on the thread and its hash.')
	}
};

/** Takes one entry made elsewhere, under the id it was given there. Sent again, it gives back what is stored. */
export async function POST(event) {
	const member = memberHere(event);
	const row = await caseRowHere(event.locals.services, event.params.id);
	const sent = SentEntry.safeParse(await event.request.json().catch(() => null));
	if (!sent.success) error(400, z.prettifyError(sent.error));
	const refused = refusedKind(sent.data.kind, member.role);
	if (refused) error(403, refused);
	const entry = readSentEntry(sent.data);
	if (!entry.ok) error(400, entry.error);
	const stored = await addEntry(event.locals.services, { ...entry.value, caseId: row.id }, member);
	// A page that hears that the case was signed can offer to open its comeback with this entry.
	if (!stored.ok) return json({ message: stored.error, signed: row.signed }, { status: 409 });
	if (stored.value.kind === 'sensor-identified') {
		const { type } = await loadCase(event.locals.services, row.id);
		await learnSensor(event.locals.services, type, member);
	}
	return json({ id: stored.value.id, seq: stored.value.seq, hash: stored.value.hash });
}
