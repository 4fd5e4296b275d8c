import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Chunk } from '../../core/live/chunk';

/**
 * What binds the samples of a recording to its entry: SHA-256 over its columns, the time first (`time_s`), each as its name
 * and a line feed in UTF-8, then its values as 64-bit floats, little endian. In lower-case hex.
 */
export function samplesHash({ timeS, channels }: Chunk): string {
	const hash = sha256.create();
	for (const [name, column] of [['time_s', timeS] as const, ...channels]) {
		hash.update(utf8ToBytes(`${name}\n`));
		hash.update(new Uint8Array(column.buffer, column.byteOffset, column.byteLength));
	}
	return bytesToHex(hash.digest());
}

/** The same of a capture of the oscilloscope: SHA-256 over the bytes that it is kept as. */
export const captureHash = (kept: Uint8Array): string => bytesToHex(sha256(kept));
