import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { recordedAt } from '$lib/case/entries/recordedHeaders';
import { splitPieces } from '$lib/core/live/pieces';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { addCapture } from '$lib/server/cases/addCapture';
import { Position } from '../../../../../../../library';

const About = z.object({
	id: Ulid,
	name: z.string().trim().max(120),
	fileName: z.string().trim().min(1).max(300),
	bytes: z.number().int().min(0),
	at: z.enum(['module', 'sensor', 'elsewhere']),
	teeth: z.number().int().min(4).max(400).nullable(),
	positions: z.array(Position.nullable()).max(4),
	knownGood: z.boolean(),
	/** The wheels turned while it was taken. */
	turned: z.boolean().default(false)
});

export const _api: ApiRoute = {
	POST: {
		says: 'A capture that was read in a browser.',
		takes: {
			media: 'application/octet-stream',
			says: 'Framed pieces: first what it is, as JSON, then its samples.'
		},
		gives: jsonOf('The id of its entry.')
	}
};

/** Takes a capture that was read in the browser, in framed pieces: first what it is, as JSON, then its samples. */
export async function POST(event) {
	const member = memberHere(event);
	const { row, view, thread, type } = await loadCase(event.locals.services, event.params.id);
	const pieces = splitPieces(new Uint8Array(await event.request.arrayBuffer()));
	if (!pieces.ok) error(400, `The file cannot be read: ${pieces.error}.`);
	const [told, samples] = pieces.value;
	let parsed: unknown = null;
	try {
		parsed = JSON.parse(new TextDecoder().decode(told));
	} catch {
		error(400, 'The file cannot be read: what it is was cut off.');
	}
	const about = About.safeParse(parsed);
	if (!about.success) error(400, z.prettifyError(about.error));
	const { id, name, fileName, bytes, at, teeth, positions, knownGood, turned } = about.data;
	if (thread.some((entry) => entry.id === id)) return json({ id });
	if (view.signature) error(409, 'This case is signed: its thread is closed.');
	const stored = await addCapture(
		event.locals.services,
		{ id, caseId: row.id },
		{
			capture: samples ?? new Uint8Array(),
			probes: positions.map((position) => ({ position, at })),
			about: {
				name,
				knownGood,
				turned,
				typeId: type?.id ?? '',
				source: { kind: 'file', fileName, bytes },
				teeth
			}
		},
		member,
		recordedAt(event.request.headers, new Date())
	);
	if (!stored.ok) error(400, stored.error);
	return json({ id });
}
