import { deflateSync, inflateSync } from 'fflate';
import { MOST_CHANNELS } from './columnMapping';
import { fail, ok, type Result } from '../result';

/**
 * A piece of a recording as it is kept: columns of doubles, their bytes laid side by side by place (so that the ones that
 * hardly change stand together), deflated. Layout: `JLC1`, length of the header (32 bits, little endian), header as JSON
 * (`rows`, `channels`), then the deflated columns, time first, in the order of `channels`.
 */
export interface Chunk {
	timeS: Float64Array;
	channels: Map<string, Float64Array>;
}

const MAGIC = [0x4a, 0x4c, 0x43, 0x31];
const HEAD_BYTES = MAGIC.length + 4;
const DOUBLE_BYTES = 8;
/** What one piece may unpack to: an hour of everything at 50 Hz is a twentieth of it. */
export const MOST_CHUNK_VALUES = 20_000_000;
const FAST = 3;

export function encodeChunk({ timeS, channels }: Chunk): Uint8Array {
	const header = new TextEncoder().encode(
		JSON.stringify({ rows: timeS.length, channels: [...channels.keys()] })
	);
	const columns = [timeS, ...channels.values()];
	const plain = new Uint8Array(timeS.length * DOUBLE_BYTES * columns.length);
	for (const [c, column] of columns.entries()) {
		if (column.length !== timeS.length) throw new RangeError('columns of a chunk are of one length');
		shuffle(column, plain, c * timeS.length * DOUBLE_BYTES);
	}
	const packed = deflateSync(plain, { level: FAST });
	const chunk = new Uint8Array(HEAD_BYTES + header.length + packed.length);
	chunk.set(MAGIC);
	new DataView(chunk.buffer).setUint32(MAGIC.length, header.length, true);
	chunk.set(header, HEAD_BYTES);
	chunk.set(packed, HEAD_BYTES + header.length);
	return chunk;
}

export function decodeChunk(bytes: Uint8Array): Result<Chunk> {
	if (bytes.length < HEAD_BYTES || !MAGIC.every((byte, i) => bytes[i] === byte))
		return fail('this is no piece of a recording (JLC1)');
	const length = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(MAGIC.length, true);
	const header = readHead(bytes.subarray(HEAD_BYTES, HEAD_BYTES + length));
	if (!header) return fail(`byte ${HEAD_BYTES}: expected rows and channels`);
	const { rows, channels } = header;
	const wanted = rows * DOUBLE_BYTES * (channels.length + 1);
	let plain: Uint8Array;
	try {
		plain = inflateSync(bytes.subarray(HEAD_BYTES + length), { out: new Uint8Array(wanted) });
	} catch {
		return fail(`byte ${HEAD_BYTES + length}: the compression is damaged`);
	}
	if (plain.length !== wanted) return fail(`expected ${wanted} bytes of numbers, found ${plain.length}`);
	const column = (c: number) => unshuffle(plain, c * rows * DOUBLE_BYTES, rows);
	return ok({
		timeS: column(0),
		channels: new Map(channels.map((name, i) => [name, column(i + 1)]))
	});
}

function readHead(bytes: Uint8Array): { rows: number; channels: string[] } | null {
	try {
		const { rows, channels } = JSON.parse(new TextDecoder().decode(bytes)) as Record<string, unknown>;
		const sound =
			Number.isInteger(rows) &&
			Number(rows) >= 0 &&
			Array.isArray(channels) &&
			channels.length <= MOST_CHANNELS &&
			Number(rows) * (channels.length + 1) <= MOST_CHUNK_VALUES &&
			channels.every((name) => typeof name === 'string');
		return sound ? { rows: Number(rows), channels: channels as string[] } : null;
	} catch {
		return null;
	}
}

function shuffle(column: Float64Array, into: Uint8Array, at: number): void {
	const bytes = new Uint8Array(column.buffer, column.byteOffset, column.byteLength);
	const rows = column.length;
	for (let i = 0; i < rows; i++) {
		for (let b = 0; b < DOUBLE_BYTES; b++) into[at + b * rows + i] = bytes[i * DOUBLE_BYTES + b] ?? 0;
	}
}

function unshuffle(from: Uint8Array, at: number, rows: number): Float64Array {
	const column = new Float64Array(rows);
	const bytes = new Uint8Array(column.buffer);
	for (let i = 0; i < rows; i++) {
		for (let b = 0; b < DOUBLE_BYTES; b++) bytes[i * DOUBLE_BYTES + b] = from[at + b * rows + i] ?? 0;
	}
	return column;
}

/** Pieces one after another as one; a channel that a piece does not have is NaN there. */
export function joinChunks(chunks: readonly Chunk[]): Chunk {
	const rows = chunks.reduce((sum, { timeS }) => sum + timeS.length, 0);
	const names = [...new Set(chunks.flatMap(({ channels }) => [...channels.keys()]))];
	const timeS = new Float64Array(rows);
	const channels = new Map(names.map((name) => [name, new Float64Array(rows).fill(NaN)]));
	let at = 0;
	for (const chunk of chunks) {
		timeS.set(chunk.timeS, at);
		for (const [name, column] of chunk.channels) channels.get(name)?.set(column, at);
		at += chunk.timeS.length;
	}
	return { timeS, channels };
}
