import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { MOST_PACKED_LOG_BYTES } from '$lib/case/thread/keptLimits';
import { Ulid } from '$lib/case/entries/fields';
import { caseRowHere, loadCase, memberHere } from '$lib/server/cases/access';
import { isLog, unpackedLog } from '$lib/server/cases/keptLog';

export const _api: ApiRoute = {
	PUT: {
		says: 'Keeps a frame log before the entry that speaks of it.',
		takes: { media: 'application/gzip', says: 'The log, packed.' },
		gives: jsonOf('Its id.')
	},
	GET: { says: 'A frame log as it came.', gives: { media: 'text/plain', says: 'The log.' } }
};

/** Takes a frame log, packed, before the entry that speaks of it. */
export async function PUT(event) {
	const member = memberHere(event);
	const row = await caseRowHere(event.locals.services, event.params.id);
	if (row.signed) error(409, 'This case is signed: its thread is closed.');
	const id = event.params.entry;
	if (!Ulid.safeParse(id).success) error(400, 'The id of an entry is a ULID.');
	const { captures } = event.locals.services;
	const state = await captures.stateOf({ id, caseId: row.id });
	if (state === 'ours') return json({ id });
	if (state === 'another') error(409, 'Something else is kept under this id.');
	const packed = new Uint8Array(await event.request.arrayBuffer());
	if (packed.length > MOST_PACKED_LOG_BYTES) error(413, 'This log is too large to be kept.');
	const log = await unpackedLog(packed);
	if (!log || !isLog(log)) error(400, 'This is no packed frame log.');
	const kept = await captures.keep(
		{ id, caseId: row.id, authorId: member.id, name: 'frame log', startedAt: new Date().toISOString() },
		[packed]
	);
	if (!kept.ok) error(409, kept.error);
	return json({ id });
}

/** The log as it came, to be looked at elsewhere. */
export async function GET({ params, locals }) {
	const { thread } = await loadCase(locals.services, params.id);
	const entry = thread.find(({ id }) => id === params.entry);
	if (entry?.kind !== 'frame-log') error(404, 'There is no such log on this case.');
	const [packed] = await locals.services.captures.pieces(entry);
	const log = packed && (await unpackedLog(packed));
	if (!log) error(404, 'Of this log only what it told was kept.');
	const name = entry.payload.fileName.replace(/\.gz$/, '').replace(/[^\w. -]/g, '_');
	return new Response(log, {
		headers: {
			'content-type': 'text/plain; charset=utf-8',
			'content-disposition': `attachment; filename="${name}"`
		}
	});
}
