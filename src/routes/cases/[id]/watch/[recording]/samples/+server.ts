import { error } from '@sveltejs/kit';
import { framePieces } from '$lib/core/live/pieces';
import { services } from '$lib/server/running';

/** The samples of a recording: its pieces (JLC1), each after its length in four bytes, little endian. */
export async function GET({ params }) {
	const { captures } = services().desk;
	if ((await captures.caseOf(params.recording)) !== params.id) error(404, 'There is no such recording here.');
	const body = framePieces(await captures.pieces(params.recording));
	return new Response(body, {
		headers: {
			'content-type': 'application/octet-stream',
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
}
