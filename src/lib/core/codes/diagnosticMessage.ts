import { fail, ok, type Result } from '../result';

/**
 * Code messages of heavy vehicles (SAE J1939-73): DM1 active, DM2 previously active. Two bytes of lamps, then four bytes
 * a code: suspect parameter number (19 bits, low byte first, its top three bits above the failure mode identifier),
 * failure mode identifier (5 bits), conversion method (1 bit), occurrence count (7 bits, 127 = not counted).
 */
export interface HeavyCode {
	/** Suspect parameter number, 0–524287. */
	spn: number;
	/** Failure mode identifier, 0–31. */
	fmi: number;
	/** 0–126, or null where it is not counted. */
	occurrences: number | null;
	/** 1: an older order of the parameter number's bits, which the message itself does not tell; read as the newest. */
	conversion: 0 | 1;
}

export const HEAVY_LAMPS = ['malfunction', 'stop', 'warning', 'protect'] as const;
export type HeavyLamp = (typeof HEAVY_LAMPS)[number];
const LAMP_STATES = ['off', 'on', 'reserved', 'not available'] as const;
const FLASH_STATES = ['slow flash', 'fast flash', 'reserved', 'steady'] as const;

export type HeavyLamps = Record<
	HeavyLamp,
	{ state: (typeof LAMP_STATES)[number]; flash: (typeof FLASH_STATES)[number] }
>;

export interface DiagnosticMessage {
	lamps: HeavyLamps;
	codes: HeavyCode[];
}

export const MAX_SPN = 0x7ffff;
export const MAX_FMI = 31;
/**
 * What a parameter number read in the newest order of bits would be in the two older orders that also set the conversion bit
 * (SAE J1939-73 names them versions 1 and 2): the high byte first and the three lowest bits apart, with the first two bytes
 * as they came or exchanged. Which one a sender uses its maker tells.
 */
export function olderNumbers(spn: number): [number, number] {
	const [first, second, three] = [spn & 0xff, (spn >> 8) & 0xff, spn >> 16];
	return [(first << 11) | (second << 3) | three, (second << 11) | (first << 3) | three];
}

const NOT_COUNTED = 127;
const LAMP_BYTES = 2;
const CODE_BYTES = 4;
const PADDING = [0xff, 0x00];

/** Bits 8–7 malfunction, 6–5 red stop, 4–3 amber warning, 2–1 protect; the same places in the flash byte. */
const pair = (byte: number, lamp: number) => ((byte >> (6 - 2 * lamp)) & 3) as 0 | 1 | 2 | 3;

function decodeLamps(state: number, flash: number): HeavyLamps {
	return Object.fromEntries(
		HEAVY_LAMPS.map((name, i) => [
			name,
			{ state: LAMP_STATES[pair(state, i)], flash: FLASH_STATES[pair(flash, i)] }
		])
	) as HeavyLamps;
}

/** Four bytes of a code, or null for "no code" (all zero) and padding (all one). */
function decodeHeavyCode(bytes: Uint8Array, at: number): HeavyCode | null {
	const [low = 0, mid = 0, high = 0, count = 0] = bytes.subarray(at, at + CODE_BYTES);
	const spn = low | (mid << 8) | ((high >> 5) << 16);
	const fmi = high & 0x1f;
	if ((spn === 0 && fmi === 0) || (spn === MAX_SPN && fmi === MAX_FMI)) return null;
	const occurrences = count & 0x7f;
	return {
		spn,
		fmi,
		occurrences: occurrences === NOT_COUNTED ? null : occurrences,
		conversion: count >> 7 === 0 ? 0 : 1
	};
}

/**
 * The bytes of a DM1 or DM2. Up to three bytes after the last whole code are taken as padding if they are all FF, or
 * all zero as some senders have it (a short message fills its frame of eight). The error says what was expected and at which byte.
 */
export function decodeDiagnosticMessage(
	bytes: Uint8Array
): Result<DiagnosticMessage, { byte: number; expected: string }> {
	if (bytes.length < LAMP_BYTES + CODE_BYTES) {
		return fail({ byte: bytes.length, expected: 'two bytes of lamps and four bytes for each code' });
	}
	const codes: HeavyCode[] = [];
	let at = LAMP_BYTES;
	for (; at + CODE_BYTES <= bytes.length; at += CODE_BYTES) {
		const code = decodeHeavyCode(bytes, at);
		if (code) codes.push(code);
	}
	const rest = bytes.subarray(at);
	if (!PADDING.some((padding) => rest.every((byte) => byte === padding))) {
		return fail({ byte: bytes.length, expected: 'four bytes for the last code' });
	}
	return ok({ lamps: decodeLamps(bytes[0] ?? 0, bytes[1] ?? 0), codes });
}

/** The inverse of {@link decodeDiagnosticMessage}; a single code or none is filled to eight bytes, as it is sent. */
export function encodeDiagnosticMessage({ lamps, codes }: DiagnosticMessage): Uint8Array {
	const bits = (value: (lamp: HeavyLamp) => number) =>
		HEAVY_LAMPS.reduce((byte, lamp, i) => byte | (value(lamp) << (6 - 2 * i)), 0);
	const bytes = [
		bits((lamp) => LAMP_STATES.indexOf(lamps[lamp].state)),
		bits((lamp) => FLASH_STATES.indexOf(lamps[lamp].flash))
	];
	for (const { spn, fmi, occurrences, conversion } of codes) {
		bytes.push(
			spn & 0xff,
			(spn >> 8) & 0xff,
			((spn >> 16) << 5) | fmi,
			(conversion << 7) | (occurrences ?? NOT_COUNTED)
		);
	}
	if (codes.length === 0) bytes.push(0, 0, 0, 0);
	while (bytes.length < 8) bytes.push(0xff);
	return Uint8Array.from(bytes);
}
