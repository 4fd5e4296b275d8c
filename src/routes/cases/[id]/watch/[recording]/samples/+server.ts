import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { framePieces } from '$lib/core/live/pieces';

export const _api: ApiRoute = {
	GET: {
		says: 'The samples of a recording.',
		gives: {
			media: 'application/octet-stream',
			says: 'Pieces, each after its length in four bytes, little endian.'
		}
	}
};

/** The samples of a recording: its pieces (JLC1), each after its length in four bytes, little endian. */
export async function GET({ params, locals }) {
	const { captures } = locals.services;
	const own = { caseId: params.id, id: params.recording };
	const pieces = await captures.pieces(own);
	if (pieces.length === 0) error(404, 'There is no such recording here.');
	const body = framePieces(pieces);
	return new Response(body, {
		headers: {
			'content-type': 'application/octet-stream',
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
}
