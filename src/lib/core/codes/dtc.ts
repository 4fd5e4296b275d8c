import { fail, ok, type Result } from '../result';

/**
 * Diagnostic trouble codes as ISO 15031-6 / SAE J2012 write them: two bytes name the code, a third byte after the dash
 * names the kind of failure.
 *
 * Bits 15–14 choose the letter P, C, B, U; bits 13–12 the first digit 0–3; the other twelve bits are three hex digits.
 */
export type CodeSystem = 'powertrain' | 'chassis' | 'body' | 'network';
export type DefinedBy = 'standard' | 'maker' | 'reserved';

/** Three bytes, upper-case hex without spaces: the form in which codes travel through Jaldi, for example `403513`. */
export type DtcHex = string;

const LETTERS = ['P', 'C', 'B', 'U'] as const;
const SYSTEM: Record<string, CodeSystem> = { P: 'powertrain', C: 'chassis', B: 'body', U: 'network' };

/** `403513` → `C0035`. Throws RangeError unless given three bytes in hex: parse at the edge first. */
export function codeText(dtc: DtcHex): string {
	if (!/^[0-9A-F]{6}$/.test(dtc))
		throw new RangeError(`a code is three bytes of upper-case hex, not "${dtc}"`);
	const high = parseInt(dtc.slice(0, 2), 16);
	return `${LETTERS[high >> 6]}${(high >> 4) & 3}${dtc.slice(1, 4)}`;
}

/** `403513` → `13`: the failure type byte. */
export const failureTypeByte = (dtc: DtcHex): string => dtc.slice(4, 6);

/** `403513` → `C0035-13`, the way technicians write it. */
export const codeWithSuffix = (dtc: DtcHex): string => `${codeText(dtc)}-${failureTypeByte(dtc)}`;

/** `C0035-13`, `c0035:13` or `C003513` → `403513`. The error names what was expected. */
export function parseCode(text: string): Result<DtcHex> {
	const match = /^([PCBU])([0-3])([0-9A-F]{3})[-:]?([0-9A-F]{2})$/.exec(text.trim().toUpperCase());
	if (!match)
		return fail('a letter P, C, B or U, a digit 0–3, three hex digits and a two-digit failure type');
	const [, letter, digit, rest, failureType] = match as unknown as [string, string, string, string, string];
	const high = (LETTERS.indexOf(letter as (typeof LETTERS)[number]) << 2) | Number(digit);
	return ok(`${high.toString(16).toUpperCase()}${rest}${failureType}`);
}

/** Which part of the vehicle the first letter names. */
export const codeSystem = (dtc: DtcHex): CodeSystem => SYSTEM[codeText(dtc).charAt(0)] as CodeSystem;

/**
 * Who defines the code. For C, B and U: 0 standard, 1 and 2 the maker, 3 reserved. For P: 0, 2 and P34–P39 standard,
 * 1 and P30–P33 the maker.
 */
export function definedBy(dtc: DtcHex): DefinedBy {
	const text = codeText(dtc);
	const digit = text.charAt(1);
	if (text.startsWith('P')) {
		if (digit === '0' || digit === '2') return 'standard';
		if (digit === '1') return 'maker';
		const third = text.charAt(2);
		if (third >= '0' && third <= '3') return 'maker';
		return third >= '4' && third <= '9' ? 'standard' : 'reserved';
	}
	if (digit === '0') return 'standard';
	return digit === '3' ? 'reserved' : 'maker';
}

/** Bytes of a code, high byte first. */
export const dtcBytes = (dtc: DtcHex): [number, number, number] => [
	parseInt(dtc.slice(0, 2), 16),
	parseInt(dtc.slice(2, 4), 16),
	parseInt(dtc.slice(4, 6), 16)
];
