import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { ENTRY_VERSION, PAYLOADS, type EntryKind } from '$lib/case/entry';
import { caseRowHere, writerHere } from '$lib/server/cases/access';
import { addEntry } from '$lib/server/cases/addEntry';

/** What a person may write down by hand; readings and clears are made by the server that did them, signatures by rule. */
const BY_HAND = [
	'complaint',
	'vehicle-checked',
	'lamps-reported',
	'prior-work',
	'tyres-fitted',
	'repair',
	'lamp-check',
	'proving-drive',
	'codes-reported',
	'lamp-read',
	'repair-planned',
	'fitting',
	'frame-log',
	'source-judged',
	'wheel-round',
	'sensor-identified',
	'meter-reading',
	'substitution',
	'harness-search',
	'inspection',
	'test-step',
	'waiting',
	'note'
] as const satisfies EntryKind[];

const Sent = z.object({
	id: z.string(),
	kind: z.enum(BY_HAND),
	version: z.literal(ENTRY_VERSION),
	observedAt: z.iso.datetime(),
	payload: z.unknown(),
	supersedes: z.object({ entryId: z.string(), why: z.string() }).nullable().default(null)
});

/** Clocks differ a little; an entry from tomorrow is a wrong clock. */
const CLOCK_SLACK_MS = 5 * 60_000;

/** Takes one entry made elsewhere, under the id it was given there. Sent again, it gives back what is stored. */
export async function POST(event) {
	const member = writerHere(event);
	const row = await caseRowHere(event.params.id);
	const sent = Sent.safeParse(await event.request.json().catch(() => null));
	if (!sent.success) error(400, z.prettifyError(sent.error));
	const { id, kind, observedAt, supersedes } = sent.data;
	if (Date.parse(observedAt) > Date.now() + CLOCK_SLACK_MS) {
		error(
			400,
			`It says it was observed at ${observedAt}, which has not come yet: set the clock of this device.`
		);
	}
	const payload = PAYLOADS[kind].safeParse(sent.data.payload);
	if (!payload.success) error(400, z.prettifyError(payload.error));
	const stored = await addEntry(
		{ id, caseId: row.id, kind, payload: payload.data, supersedes, observedAt },
		member
	);
	if (!stored.ok) error(409, stored.error);
	return json({ id: stored.value.id, seq: stored.value.seq, hash: stored.value.hash });
}
