import { hexByte } from '../bytes';

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
/** The written form of the two code bytes, for example `C0035`. */
export type CodeText = string;

export const CODE_TEXT = /^[PCBU][0-3][0-9A-F]{3}$/;

const LETTERS = ['P', 'C', 'B', 'U'] as const;
const SYSTEM: Record<string, CodeSystem> = { P: 'powertrain', C: 'chassis', B: 'body', U: 'network' };

/** The two code bytes, 0–65535 → `C0035`. */
export function codeFromNumber(number: number): CodeText {
	const rest = (number & 0xfff).toString(16).toUpperCase().padStart(3, '0');
	return `${LETTERS[(number >> 14) & 3]}${(number >> 12) & 3}${rest}`;
}

/** `C0035` → 0x4035. Throws RangeError for anything but a written code: parse at the edge first. */
export function codeToNumber(code: CodeText): number {
	if (!CODE_TEXT.test(code)) throw new RangeError(`a code is a letter and four digits, not "${code}"`);
	const letter = LETTERS.indexOf(code.charAt(0) as (typeof LETTERS)[number]);
	return (letter << 14) | parseInt(code.slice(1), 16);
}

/** `403513` → `C0035`. Throws RangeError unless given three bytes in hex: parse at the edge first. */
export function codeText(dtc: DtcHex): CodeText {
	if (!/^[0-9A-F]{6}$/.test(dtc))
		throw new RangeError(`a code is three bytes of upper-case hex, not "${dtc}"`);
	return codeFromNumber(parseInt(dtc.slice(0, 4), 16));
}

/** `403513` → `13`: the failure type byte. */
export const failureTypeByte = (dtc: DtcHex): string => dtc.slice(4, 6);

/** `403513` → `C0035-13`, the way technicians write it. */
export const codeWithSuffix = (dtc: DtcHex): string => `${codeText(dtc)}-${failureTypeByte(dtc)}`;

/** `C0035` and `13` → `403513`. */
export const dtcHex = (code: CodeText, failureType: string): DtcHex => {
	const number = codeToNumber(code);
	return `${hexByte(number >> 8)}${hexByte(number & 0xff)}${failureType}`;
};

/** Which part of the vehicle the first letter names. */
export const codeSystem = (code: CodeText): CodeSystem => SYSTEM[code.charAt(0)] as CodeSystem;

/**
 * Who defines the code. For C, B and U: 0 standard, 1 and 2 the maker, 3 reserved – but U3, of which the standard has
 * meanwhile assigned U30xx. For P: 0, 2 and P34–P39 standard, 1 and P30–P33 the maker.
 */
export function definedBy(code: CodeText): DefinedBy {
	const digit = code.charAt(1);
	if (code.startsWith('P')) {
		if (digit === '0' || digit === '2') return 'standard';
		if (digit === '1') return 'maker';
		const third = code.charAt(2);
		if (third >= '0' && third <= '3') return 'maker';
		return third >= '4' && third <= '9' ? 'standard' : 'reserved';
	}
	if (digit === '0' || code.startsWith('U30')) return 'standard';
	return digit === '3' ? 'reserved' : 'maker';
}

/** Bytes of a code, high byte first. */
export const dtcBytes = (dtc: DtcHex): [number, number, number] => [
	parseInt(dtc.slice(0, 2), 16),
	parseInt(dtc.slice(2, 4), 16),
	parseInt(dtc.slice(4, 6), 16)
];
