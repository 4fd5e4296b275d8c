import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { memberHere } from '$lib/server/cases/access';
import { addEntry } from '$lib/server/cases/addEntry';
import { openComeback } from '$lib/server/cases/openComeback';
import { readSentEntry, refusedKind, SentEntry } from '$lib/server/cases/sentEntry';

const Asked = z.object({ id: Ulid, worksId: Ulid, entry: SentEntry });

export const _api: ApiRoute = {
	POST: {
		says: 'An entry that came after its case was signed: it goes on the open comeback of the case, or opens one.',
		takes: Asked,
		gives: jsonOf('The case it went on.')
	}
};

/** An entry that came after its case was signed: it goes on the case's open comeback, or opens one. */
export async function POST(event) {
	const member = memberHere(event);
	const asked = Asked.safeParse(await event.request.json().catch(() => null));
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const refused = refusedKind(asked.data.entry.kind, member.role);
	if (refused) error(403, refused);
	const sent = readSentEntry(asked.data.entry);
	if (!sent.ok) error(400, sent.error);
	const { cases, trackRecord } = event.locals.services;
	const rows = await Promise.all(
		(await trackRecord.comebacksOf(event.params.id)).map(({ id }) => cases.find(id))
	);
	let caseId = rows.find((row) => row && !row.signed)?.id;
	if (caseId === undefined) {
		const opened = await openComeback(event.locals.services, event.params.id, asked.data, member);
		if (!opened.ok) error(409, opened.error);
		caseId = asked.data.id;
	}
	// What it corrects is on a thread that is closed.
	const stored = await addEntry(event.locals.services, { ...sent.value, caseId, supersedes: null }, member);
	if (!stored.ok) error(409, stored.error);
	return json({ caseId });
}
