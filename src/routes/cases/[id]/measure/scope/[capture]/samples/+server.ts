import { error } from '@sveltejs/kit';
import { memberHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

/** The samples of a capture as they are kept (JSC1). A capture kept as good may be laid over one of another case. */
export async function GET(event) {
	memberHere(event);
	const { captures } = services().desk;
	const [bytes] = await captures.pieces(event.params.capture);
	if (!bytes) error(404, 'There is no such capture.');
	return new Response(new Uint8Array(bytes), {
		headers: {
			'content-type': 'application/octet-stream',
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
}
