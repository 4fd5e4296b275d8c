import { createReadStream } from 'node:fs';
import { PassThrough, pipeline, type Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';

/** The input cannot be read at all: says which file and why. Exit status 1. */
export class UnreadableInput extends Error {}

const GZIP_MAGIC = [0x1f, 0x8b];
const PIECE_BYTES = 1 << 18;

/**
 * A file, or `-` for standard input, in pieces; gzip-compressed input is unpacked on the way. Throws
 * {@link UnreadableInput}.
 */
export async function* openInput(file: string): AsyncGenerator<Uint8Array> {
	const name = file === '-' ? 'standard input' : file;
	try {
		yield* unpacked(file === '-' ? process.stdin : createReadStream(file, { highWaterMark: PIECE_BYTES }));
	} catch (error) {
		const { code, message } = error as NodeJS.ErrnoException;
		const why =
			code === 'ENOENT'
				? 'there is no such file'
				: code === 'EISDIR'
					? 'that is a folder'
					: code?.startsWith('Z_')
						? `the compression is damaged (${message})`
						: message;
		throw new UnreadableInput(`${name}: ${why}`);
	}
}

async function* unpacked(source: Readable): AsyncGenerator<Uint8Array> {
	const pieces = source[Symbol.asyncIterator]();
	let first = (await pieces.next()) as IteratorResult<Buffer>;
	let head = first.done ? Buffer.alloc(0) : first.value;
	while (head.length < GZIP_MAGIC.length && !first.done) {
		first = await pieces.next();
		if (!first.done) head = Buffer.concat([head, first.value]);
	}
	const rest = async function* () {
		yield head;
		for (;;) {
			const next = (await pieces.next()) as IteratorResult<Buffer>;
			if (next.done) return;
			yield next.value;
		}
	};
	if (!GZIP_MAGIC.every((byte, i) => head[i] === byte)) return yield* rest();
	const out = new PassThrough();
	const done = new Promise<void>((resolve, reject) => {
		pipeline(rest, createGunzip({ chunkSize: PIECE_BYTES }), out, (error) =>
			error ? reject(error) : resolve()
		);
	});
	done.catch((error) => out.destroy(error));
	yield* out;
	await done;
}

/** All of a file, or of standard input. Throws {@link UnreadableInput}. */
export async function readWhole(file: string): Promise<Buffer> {
	const pieces: Uint8Array[] = [];
	for await (const piece of openInput(file)) pieces.push(piece);
	return Buffer.concat(pieces);
}
