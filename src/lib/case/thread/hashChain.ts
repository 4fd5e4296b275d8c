import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Stamp } from '../entries/entry';

/** What the first entry of a thread carries in place of a hash before it. */
export const FIRST_PREVIOUS = '0'.repeat(64);

/** SHA-256 over the entry without its own hash, as canonical JSON (RFC 8785), lower-case hex. */
export function entryHash(entry: Omit<Stamp, 'hash'> & { hash?: string }): string {
	const { hash: _hash, ...content } = entry;
	return bytesToHex(sha256(utf8ToBytes(canonicalize(content) ?? '')));
}

export type ChainCheck = { intact: true } | { intact: false; seq: number; reason: string };

/**
 * Checks a thread in order; names the first entry that was changed, is missing or does not belong.
 *
 * @param after last entry before these, where they go on from a part that was checked already
 */
export function checkChain(
	thread: readonly Stamp[],
	after: Pick<Stamp, 'seq' | 'hash'> = { seq: 0, hash: FIRST_PREVIOUS }
): ChainCheck {
	let previous = after.hash;
	for (const [index, entry] of thread.entries()) {
		const seq = after.seq + index + 1;
		if (entry.seq !== seq) return { intact: false, seq, reason: `entry ${seq} is missing` };
		if (entry.previousHash !== previous) {
			return { intact: false, seq, reason: `entry ${seq} does not follow the one before it` };
		}
		if (entryHash(entry) !== entry.hash) {
			return { intact: false, seq, reason: `entry ${seq} was changed after it was written` };
		}
		previous = entry.hash;
	}
	return { intact: true };
}
