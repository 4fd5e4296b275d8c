import { bytesToHex } from '@noble/hashes/utils.js';
import { fail, ok, type Result } from './result';

/** Where a text could not be read (index of the first sign that does not fit) and what was expected there. */
export interface TextError {
	at: number;
	expected: string;
}

/** `[0x40, 0x35]` → `4035`. */
export const hex = (bytes: Uint8Array): string => bytesToHex(bytes).toUpperCase();

/** 0–255 → two upper-case hex digits. */
export const hexByte = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');

/** `403514` → `40 35 14`, as people read bytes. */
export const spacedHex = (text: string): string => text.replace(/..(?=.)/g, '$& ');

const SEPARATOR = /[\s,;.:_-]/;
const HEX_DIGIT = /[0-9A-Fa-f]/;

/**
 * Bytes as people write them: `403514`, `40 35 14`, `0x40, 0x35`, `40-35-14`. Two digits a byte; a byte is never split by
 * a separator.
 */
export function parseHexBytes(text: string): Result<Uint8Array, TextError> {
	const bytes: number[] = [];
	let at = 0;
	while (at < text.length) {
		if (SEPARATOR.test(text.charAt(at))) {
			at++;
			continue;
		}
		if (/^0x/i.test(text.slice(at, at + 2))) at += 2;
		const high = text.charAt(at);
		const low = text.charAt(at + 1);
		if (!HEX_DIGIT.test(high)) return fail({ at, expected: 'a hex digit 0–9 or A–F' });
		if (!HEX_DIGIT.test(low)) return fail({ at: at + 1, expected: 'the second hex digit of this byte' });
		bytes.push(parseInt(high + low, 16));
		at += 2;
	}
	return ok(Uint8Array.from(bytes));
}
