import { fail, ok, type Result } from '../result';
import { decodeChunk, joinChunks, MOST_CHUNK_VALUES, type Chunk } from './chunk';

const LENGTH_BYTES = 4;

/** Pieces of a recording in one body: each after its length in four bytes, little endian. */
export function framePieces(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
	const total = pieces.reduce((sum, piece) => sum + LENGTH_BYTES + piece.length, 0);
	const body = new Uint8Array(total);
	const view = new DataView(body.buffer);
	let at = 0;
	for (const piece of pieces) {
		view.setUint32(at, piece.length, true);
		body.set(piece, at + LENGTH_BYTES);
		at += LENGTH_BYTES + piece.length;
	}
	return body;
}

/** The inverse of {@link framePieces}. */
export function splitPieces(body: Uint8Array): Result<Uint8Array[]> {
	const view = new DataView(body.buffer, body.byteOffset, body.byteLength);
	const pieces: Uint8Array[] = [];
	for (let at = 0; at < body.length;) {
		if (at + LENGTH_BYTES > body.length) return fail(`byte ${at}: the length of a piece is cut`);
		const to = at + LENGTH_BYTES + view.getUint32(at, true);
		if (to > body.length) return fail(`byte ${at}: a piece is cut`);
		pieces.push(body.subarray(at + LENGTH_BYTES, to));
		at = to;
	}
	return ok(pieces);
}

/** A framed recording, decoded and joined. */
export function readPieces(body: Uint8Array): Result<Chunk> {
	const pieces = splitPieces(body);
	if (!pieces.ok) return pieces;
	const chunks: Chunk[] = [];
	let values = 0;
	for (const piece of pieces.value) {
		const chunk = decodeChunk(piece);
		if (!chunk.ok) return chunk;
		values += chunk.value.timeS.length * (chunk.value.channels.size + 1);
		// Small pieces that unpack to much are many as easily as one.
		if (values > MOST_CHUNK_VALUES) return fail('it unpacks to more numbers than a recording may hold');
		chunks.push(chunk.value);
	}
	return chunks.length > 0 ? ok(joinChunks(chunks)) : fail('there are no samples in it');
}
