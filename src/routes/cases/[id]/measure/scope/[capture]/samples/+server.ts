import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';

export const _api: ApiRoute = {
	GET: {
		says: 'The samples of a capture.',
		gives: { media: 'application/octet-stream', says: 'The samples as they are kept.' }
	}
};

/** The samples of a capture as they are kept (JSC1). A capture kept as good may be laid over one of another case. */
export async function GET(event) {
	const { captures, goodReadings } = event.locals.services;
	const { id: caseId, capture: id } = event.params;
	const own = await captures.pieces({ caseId, id });
	const keptBy = own.length > 0 ? null : await goodReadings.caseOfCapture(id);
	const [bytes] = keptBy === null ? own : await captures.pieces({ caseId: keptBy, id });
	if (!bytes) error(404, 'There is no such capture.');
	return new Response(new Uint8Array(bytes), {
		headers: {
			'content-type': 'application/octet-stream',
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
}
