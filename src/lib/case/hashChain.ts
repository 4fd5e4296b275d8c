import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Entry } from './entry';

/** What the first entry of a thread carries in place of a hash before it. */
export const FIRST_PREVIOUS = '0'.repeat(64);

/** SHA-256 over the entry without its own hash, as canonical JSON (RFC 8785), lower-case hex. */
export function entryHash(entry: Omit<Entry, 'hash'> & { hash?: string }): string {
	const { hash: _hash, ...content } = entry;
	return bytesToHex(sha256(utf8ToBytes(canonicalize(content) ?? '')));
}

export type ChainCheck = { intact: true } | { intact: false; seq: number; reason: string };

/** Checks a whole thread in order; names the first entry that was changed, is missing or does not belong. */
export function checkChain(thread: Entry[]): ChainCheck {
	let previous = FIRST_PREVIOUS;
	for (const [index, entry] of thread.entries()) {
		const seq = index + 1;
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
