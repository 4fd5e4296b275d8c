import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { caseTestConditions } from '$lib/case/testConditions';
import { typeOf } from '$lib/case/codes';
import { Ulid } from '$lib/case/fields';
import { ColumnMappingShape } from '$lib/case/columnMappingShape';
import { LONGEST_S } from '$lib/case/livePayloads';
import { CHANNEL } from '$lib/core/live/columnMapping';
import { framePieces, readPieces, splitPieces } from '$lib/core/live/pieces';
import { loadCase, writerHere } from '$lib/server/cases/access';
import { addEntry } from '$lib/server/cases/addEntry';
import { wholePieces } from '$lib/server/db/captures';
import { liveVehicleOf, recordingPayload } from '$lib/server/jobs/recorder';
import { services } from '$lib/server/running';

const About = z.object({
	id: Ulid,
	name: z.string().trim().max(120),
	fileName: z.string().trim().min(1).max(300),
	bytes: z.number().int().min(0),
	/** Remembered for the next file with this header; null where nothing was asked. */
	remember: z.object({ key: z.string().max(20_000), mapping: ColumnMappingShape }).nullable()
});
/** Five hours at 50 Hz: analysing it holds the server for about a second. */
const MOST_ROWS = 1_000_000;

/** What this shop has said of files with this header before. */
export async function GET({ url }) {
	const key = url.searchParams.get('key') ?? '';
	return json({ mapping: await services().columnMemory.find(key) });
}

/** Takes a file that was read in the browser, in framed pieces: first what it is, as JSON, then its samples. */
export async function POST(event) {
	const member = writerHere(event);
	const { row, view, thread } = await loadCase(event.params.id);
	const pieces = splitPieces(new Uint8Array(await event.request.arrayBuffer()));
	if (!pieces.ok) error(400, `The file cannot be read: ${pieces.error}.`);
	const [told, ...parts] = pieces.value;
	const about = About.safeParse(parsed(new TextDecoder().decode(told)));
	if (!about.success) error(400, z.prettifyError(about.error));
	const { id, name, fileName, bytes, remember } = about.data;
	if (thread.some((entry) => entry.id === id)) return json({ id });
	if (view.signature) error(409, 'This case is signed: its thread is closed.');
	const samples = readPieces(framePieces(parts));
	if (!samples.ok) error(400, `The samples cannot be read: ${samples.error}.`);
	const { timeS, channels } = samples.value;
	const few = timeS.length < 2 || channels.size === 0;
	if (few || timeS.length > MOST_ROWS)
		error(
			400,
			`A recording has 2 to ${MOST_ROWS.toLocaleString('en-GB')} readings of at least one signal: cut the file to the minutes around the fault.`
		);
	const odd = [...channels.keys()].find((name) => !CHANNEL.test(name));
	if (odd !== undefined) error(400, `"${odd}" is no name of a signal.`);
	if (!((timeS.at(-1) ?? NaN) - (timeS[0] ?? NaN) <= LONGEST_S))
		error(400, 'It spans more than four months: is the first column really the time, and in this unit?');
	for (let i = 1; i < timeS.length; i++) {
		if (!((timeS[i] ?? NaN) >= (timeS[i - 1] ?? 0))) error(400, `Time runs backwards at reading ${i + 1}.`);
	}
	const { captures } = services().desk;
	const type = typeOf(view.entries);
	const payload = recordingPayload(
		samples.value,
		type ? liveVehicleOf(type) : undefined,
		{
			name,
			source: { kind: 'file', fileName, bytes },
			marks: [],
			endedBecause: null
		},
		caseTestConditions(view)
	);
	const held = await captures.keep(
		{ id, caseId: row.id, authorId: member.id, name, startedAt: new Date().toISOString() },
		wholePieces(samples.value)
	);
	if (!held.ok) error(409, held.error);
	const stored = await addEntry({ id, caseId: row.id, kind: 'live-recording', payload }, member);
	if (!stored.ok) {
		await captures.forget({ id, caseId: row.id });
		error(409, stored.error);
	}
	if (remember) await services().columnMemory.keep(remember.key, remember.mapping, member.name);
	return json({ id });
}

function parsed(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return null;
	}
}
