import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { decodeCapture } from '$lib/core/scope/captureChunk';
import { writeCapture } from '$lib/core/scope/captureRows';

const PIECE_ROWS = 20_000;

export const _api: ApiRoute = {
	GET: {
		says: 'A capture as CSV.',
		gives: { media: 'text/csv', says: 'Time in seconds, then volts of each channel.' }
	}
};

/** A capture as CSV, sent piece by piece. */
export async function GET(event) {
	const { captures } = event.locals.services;
	const { id, capture: captureId } = event.params;
	const [bytes] = await captures.pieces({ caseId: id, id: captureId });
	if (!bytes) error(404, 'There is no such capture here.');
	const capture = decodeCapture(bytes);
	if (!capture.ok) error(404, 'There is no such capture here.');
	const rows = capture.value.channels[0]?.volts.length ?? 0;
	let from = 0;
	const text = new TextEncoder();
	const body = new ReadableStream<Uint8Array>({
		pull(controller) {
			const piece = writeCapture(capture.value, from, from + PIECE_ROWS);
			// The header stands once.
			controller.enqueue(text.encode(from === 0 ? piece : piece.slice(piece.indexOf('\n') + 1)));
			from += PIECE_ROWS;
			if (from >= rows) controller.close();
		}
	});
	return new Response(body, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="capture-${captureId}.csv"`
		}
	});
}
