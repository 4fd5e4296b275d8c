import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { caseTestConditions } from '$lib/case/watch/testConditions';
import { Ulid } from '$lib/case/entries/fields';
import { recordedAt } from '$lib/case/entries/recordedHeaders';
import { ColumnMappingShape } from '$lib/case/entries/columnMappingShape';
import { splitPieces } from '$lib/core/live/pieces';
import { caseRowHere, loadCase, memberHere } from '$lib/server/cases/access';
import { addEntry } from '$lib/server/cases/addEntry';
import { liveVehicleOf } from '$lib/case/watch/recordingPayload';

const About = z.object({
	id: Ulid,
	name: z.string().trim().max(120),
	fileName: z.string().trim().min(1).max(300),
	bytes: z.number().int().min(0),
	/** Remembered for the next file with this header; null where nothing was asked. */
	remember: z.object({ key: z.string().max(20_000), mapping: ColumnMappingShape }).nullable()
});

export const _api: ApiRoute = {
	GET: {
		says: 'What this shop has said of files with this header before.',
		query: { key: 'the header' },
		gives: jsonOf('The mapping of its columns, or null.')
	},
	POST: {
		says: 'A recording that was read in a browser.',
		takes: {
			media: 'application/octet-stream',
			says: 'Framed pieces: first what it is, as JSON, then its samples.'
		},
		gives: jsonOf('The id of its entry.')
	}
};

/** What this shop has said of files with this header before. */
export async function GET({ url, locals, params }) {
	await caseRowHere(locals.services, params.id);
	const key = url.searchParams.get('key') ?? '';
	return json({ mapping: await locals.services.columnMemory.find(key) });
}

/** Takes a file that was read in the browser, in framed pieces: first what it is, as JSON, then its samples. */
export async function POST(event) {
	const member = memberHere(event);
	const { row, view, thread, type } = await loadCase(event.locals.services, event.params.id);
	const body = new Uint8Array(await event.request.arrayBuffer());
	const pieces = splitPieces(body);
	if (!pieces.ok) error(400, `The file cannot be read: ${pieces.error}.`);
	const [told] = pieces.value;
	const about = About.safeParse(parsed(new TextDecoder().decode(told)));
	if (!about.success) error(400, z.prettifyError(about.error));
	const { id, name, fileName, bytes, remember } = about.data;
	if (thread.some((entry) => entry.id === id)) return json({ id });
	if (view.signature) error(409, 'This case is signed: its thread is closed.');
	const { captures, heavy } = event.locals.services;
	const ready = await heavy.ask('importedRecording', {
		body,
		vehicle: type ? liveVehicleOf(type) : undefined,
		about: { name, source: { kind: 'file', fileName, bytes }, marks: [], endedBecause: null },
		// Only what is looked for goes to the other thread.
		tests: caseTestConditions(view).map(({ name: test, condition }) => ({ name: test, condition }))
	});
	if (!ready.ok) error(400, ready.error);
	const observedAt = recordedAt(event.request.headers, new Date());
	const held = await captures.keep(
		{ id, caseId: row.id, authorId: member.id, name, startedAt: observedAt },
		ready.value.pieces
	);
	if (!held.ok) error(409, held.error);
	const { payload } = ready.value;
	const stored = await addEntry(
		event.locals.services,
		{ id, caseId: row.id, kind: 'live-recording', payload, observedAt },
		member
	);
	if (!stored.ok) {
		await captures.forget({ id, caseId: row.id });
		error(409, stored.error);
	}
	if (remember) await event.locals.services.columnMemory.keep(remember.key, remember.mapping, member.name);
	return json({ id });
}

function parsed(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return null;
	}
}
