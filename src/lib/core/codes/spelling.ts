import { hex, hexByte, parseHexBytes, spacedHex, type TextError } from '../bytes';
import { fail, ok, type Result } from '../result';
import { codesInResponse, isCodeList, looksLikeCodeAnswer } from '../uds/codesInResponse';
import { parseCount } from '../uds/readCodes';
import {
	decodeDiagnosticMessage,
	MAX_FMI,
	MAX_SPN,
	type HeavyCode,
	type HeavyLamps
} from './diagnosticMessage';
import { codeFromNumber, codeToNumber, type CodeText } from './dtc';
import { LONGEST_OWN, ownNotation } from './ownNotation';

/** One code, whatever family it is of. */
export type AnyCode =
	| {
			kind: 'dtc';
			code: CodeText;
			/** Two hex digits, or null where the spelling names no kind of failure. */
			failureType: string | null;
			/** 0–255, or null where the spelling carries none. */
			status: number | null;
	  }
	| ({ kind: 'j1939' } & HeavyCode)
	| {
			/** A maker's own notation, which no standard says how to read. */
			kind: 'own';
			written: string;
	  }
	| {
			kind: 'lamp';
			/** Flashes of each group, in order. */
			groups: number[];
	  };

/** What one text turned out to be. */
export interface Spelled {
	codes: AnyCode[];
	/** What the text is: a code, or a whole answer of a module, in words. */
	what: string;
	/** Lamps of a heavy vehicle's message. */
	lamps: HeavyLamps | null;
}

type Reading = Result<Spelled, TextError>;

const one = (code: AnyCode, what = 'a code'): Reading => ok({ codes: [code], what, lamps: null });
const expected = (at: number, what: string): Reading => fail({ at, expected: what });

const WRITTEN =
	/^([PCBU][0-3][0-9A-F]{3})(?:\s*[-:.\s]?\s*([0-9A-F]{2}))?(?:\s*[-/:\s]\s*(?:0X)?([0-9A-F]{2}))?$/;

/** `C0035`, `C0035-14`, `C003514`, `C0035-14/2F`. */
function readWritten(text: string): Reading | null {
	if (!/^[PCBU]/.test(text)) return null;
	// B and C are hex digits too: whole bytes are bytes, unless a written code stands there by itself.
	const standsAlone = /^[PCBU][0-3][0-9A-F]{3}(?![0-9A-F])/.test(text);
	const digits = /^[0-9A-F\s.:/_-]+$/.test(text) ? text.replace(/[^0-9A-F]/g, '').length : 1;
	if (!standsAlone && digits % 2 === 0) return null;
	const match = WRITTEN.exec(text);
	if (match) {
		const [, code = '', failureType = null, status] = match;
		return one({
			kind: 'dtc',
			code,
			failureType,
			status: status === undefined ? null : parseInt(status, 16)
		});
	}
	const fits = /^[PCBU](?:[0-3][0-9A-F]{0,3})?/.exec(text)?.[0].length ?? 1;
	if (fits === 1) return expected(1, 'a digit 0–3 after the letter');
	if (fits < 5) return expected(fits, 'three hex digits 0–9, A–F after the first digit');
	return expected(fits, 'a failure type of two hex digits, or nothing more');
}

const NAMED_HEAVY =
	/^SPN\s*[:=#]?\s*(\d+)\s*[,;/]?\s*FMI\s*[:=#]?\s*(\d+)(?:\s*[,;/]?\s*OC\s*[:=#]?\s*(\d+))?(?:\s*[,;/]?\s*CM\s*[:=#]?\s*([01]))?$/;
const SHORT_HEAVY = /^(\d+)\s*\/\s*(\d{1,2})(?:\s*\/\s*(\d+))?$/;
const CODE_WITH_STATUS = /^[0-9A-F]{6}[/:][0-9A-F]{2}$/;

/** `SPN 789 FMI 5`, `789/5`, both with an occurrence count after; `CM 1` after that tells of the conversion bit. Six digits and two are a code and its status. */
function readHeavy(text: string): Reading | null {
	if (/^SPN/.test(text) && !NAMED_HEAVY.test(text)) {
		return expected(
			/^SPN\s*[:=#]?\s*\d*/.exec(text)?.[0].length ?? 3,
			'a number, then FMI and a number 0–31'
		);
	}
	if (CODE_WITH_STATUS.test(text)) return null;
	const match = NAMED_HEAVY.exec(text) ?? SHORT_HEAVY.exec(text);
	if (!match) return null;
	const [, spn = '', fmi = '', occurrences, conversion] = match;
	if (Number(spn) > MAX_SPN) return expected(text.indexOf(spn), `a parameter number up to ${MAX_SPN}`);
	if (Number(fmi) > MAX_FMI) return expected(text.lastIndexOf(fmi), `a failure mode identifier 0–${MAX_FMI}`);
	if (occurrences !== undefined && Number(occurrences) > 126) {
		return expected(text.lastIndexOf(occurrences), 'an occurrence count 0–126');
	}
	return one({
		kind: 'j1939',
		spn: Number(spn),
		fmi: Number(fmi),
		occurrences: occurrences === undefined ? null : Number(occurrences),
		conversion: conversion === '1' ? 1 : 0
	});
}

/** `=01314`: what stands after the sign is the maker's own, whatever it looks like. */
function readOwn(text: string): Reading | null {
	if (!text.trimStart().startsWith('=')) return null;
	const written = ownNotation(text.trimStart().slice(1));
	if (written === '') return expected(text.length, 'the maker’s own code after the equals sign');
	if (written.length > LONGEST_OWN) return expected(LONGEST_OWN, `no more than ${LONGEST_OWN} signs`);
	if (/\p{Surrogate}/u.test(written)) return expected(1, 'no broken character');
	return one({ kind: 'own', written });
}

const MOST_FLASHES = 99;

/** `lamp 3-4`. */
function readLamp(text: string): Reading | null {
	const word = /^(?:LAMP|FLASH|BLINK)(?:\s*CODE)?\s*:?\s*/.exec(text)?.[0];
	if (word === undefined) return null;
	const rest = text.slice(word.length);
	if (!/^\d{1,2}(?:\s*[-,.\s]\s*\d{1,2})*$/.test(rest)) {
		return expected(
			word.length + (/^[\d\s,.-]*/.exec(rest)?.[0].length ?? 0),
			'counts of flashes, such as 3-4'
		);
	}
	const groups = rest.split(/[-,.\s]+/).map(Number);
	const silent = groups.findIndex((count) => count < 1 || count > MOST_FLASHES);
	if (silent !== -1) return expected(word.length, 'at least one flash in each group');
	return one({ kind: 'lamp', groups });
}

const CODES_MESSAGE = /^DM\s?(1|2|6|12|23|28)\b\s*:?\s*/;

/** `DM1 04 FF 15 03 05 03`. */
function readMessage(text: string): Reading | null {
	const word = CODES_MESSAGE.exec(text)?.[0];
	if (word === undefined) return null;
	const bytes = parseHexBytes(text.slice(word.length));
	if (!bytes.ok) return expected(word.length + bytes.error.at, bytes.error.expected);
	return messageOf(bytes.value, word.trim().replace(/[\s:]/g, ''), text.length);
}

function messageOf(bytes: Uint8Array, name: string, textLength: number): Reading {
	const message = decodeDiagnosticMessage(bytes);
	if (!message.ok) return expected(textLength, message.error.expected);
	return ok({
		codes: message.value.codes.map((code) => ({ kind: 'j1939', ...code })),
		what: name,
		lamps: message.value.lamps
	});
}

/** Index in the text of the byte with this number: its first hex digit, a leading 0x passed over. */
function placeOfByte(text: string, byte: number): number {
	let digits = 0;
	for (let at = 0; at < text.length; at++) {
		if (text.startsWith('0X', at)) {
			at++;
			continue;
		}
		if (/[0-9A-F]/.test(text.charAt(at)) && digits++ === 2 * byte) return at;
	}
	return text.length;
}

/** The service bytes of an answer that stands alone or in a single frame with its length before it. */
function answerIn(bytes: Uint8Array): Uint8Array | null {
	if (looksLikeCodeAnswer(bytes)) return bytes;
	const [length = 0] = bytes;
	const inFrame = bytes.subarray(1, 1 + length);
	if (bytes.length !== 8 || length < 1 || length > 7) return null;
	return looksLikeCodeAnswer(inFrame) ? inFrame : null;
}

/** Two bytes that are as well the beginning of a written code. */
const CUT_SHORT = /^[BC][0-3][0-9A-F]{2}$/;

const STATUS_AFTER = /[/:]\s*(?:0X)?([0-9A-F]{2})$/;

/** First byte of every answer about codes; no lamp byte, whose pairs of bits never say so. */
const CODE_ANSWER = 0x59;

/** `0x4035`, `403514`, `40 35 14`, `403514/2F`, or a whole answer or message in hex. */
function readHex(text: string): Reading {
	const status = STATUS_AFTER.exec(text);
	if (status) {
		const before = parseHexBytes(text.slice(0, status.index));
		if (before.ok && before.value.length === 3) return bytesOfCode(before.value, status[1] ?? null);
	}
	if (CUT_SHORT.test(text)) {
		const meant = formatSpelling({
			kind: 'dtc',
			code: codeFromNumber(parseInt(text, 16)),
			failureType: null,
			status: null
		});
		return expected(
			text.length,
			`a whole code (${text}… is cut short), or 0x${text} if the bytes of ${meant} are meant`
		);
	}
	const parsed = parseHexBytes(text);
	if (!parsed.ok) {
		const { at, expected: what } = parsed.error;
		return expected(
			at,
			/[0-9A-F]/.test(text.charAt(0)) ? what : 'a code such as C0035-14, 403514, 789/5 or lamp 3-4'
		);
	}
	const bytes = parsed.value;
	if (bytes.length === 2 && bytes[0] === CODE_ANSWER && isCodeList(bytes[1] ?? 0)) {
		const meant = codeFromNumber(((bytes[0] ?? 0) << 8) | (bytes[1] ?? 0));
		return expected(
			text.length,
			`the rest of the answer (59 ${hexByte(bytes[1] ?? 0)} is its head alone), or ${meant} if that code is meant`
		);
	}
	const answer = answerIn(bytes);
	if (answer) {
		const told = codesInResponse(answer);
		if (!told.ok) {
			const before = answer.byteOffset - bytes.byteOffset;
			return expected(placeOfByte(text, before + told.error.byte), told.error.expected);
		}
		const codes = told.value.codes.map((code): AnyCode => ({ kind: 'dtc', ...code }));
		return ok({ codes, what: told.value.what, lamps: null });
	}
	if (bytes[0] === CODE_ANSWER && bytes.length > 4) {
		const count = parseCount(bytes);
		if (count.ok) return ok({ codes: [], what: `number of codes, ${count.value}`, lamps: null });
		return expected(placeOfByte(text, 1), 'a kind of code list known to ISO 14229-1');
	}
	if (bytes.length >= 2 && bytes.length <= 4) {
		return bytesOfCode(bytes.subarray(0, 3), bytes.length === 4 ? hexByte(bytes[3] ?? 0) : null);
	}
	if (bytes.length === 8 || (bytes.length >= 6 && (bytes.length - 2) % 4 === 0)) {
		return messageOf(bytes, 'DM1', text.length);
	}
	return expected(
		text.length,
		bytes.length === 0
			? 'a code such as C0035-14, 403514, 789/5 or lamp 3-4'
			: 'two bytes of a code, three with its failure type, four with its status, or a whole answer'
	);
}

function bytesOfCode(bytes: Uint8Array, status: string | null): Reading {
	return one({
		kind: 'dtc',
		code: codeFromNumber(((bytes[0] ?? 0) << 8) | (bytes[1] ?? 0)),
		failureType: bytes.length > 2 ? hexByte(bytes[2] ?? 0) : null,
		status: status === null ? null : parseInt(status, 16)
	});
}

/** Longer texts are no spelling of one thing; the paste box takes them. */
export const LONGEST_SPELLING = 20_000;

/**
 * Any spelling of a code, or a module's answer in hex → the codes in it. Total: the error says what was expected and at
 * which sign of the text (0 = the first).
 */
export function parseSpelling(text: string): Reading {
	if (text.length > LONGEST_SPELLING) return expected(LONGEST_SPELLING, 'no more than 20,000 signs');
	const own = readOwn(text);
	if (own) return own;
	const start = /^\s*/.exec(text)?.[0].length ?? 0;
	const bare = text.trim().toUpperCase();
	// Some letters grow when made upper-case: then no place in the text could be named rightly, and none is a code.
	if (bare.length !== text.trim().length) return expected(start, 'letters A–Z and digits');
	const reading =
		readLamp(bare) ?? readHeavy(bare) ?? readMessage(bare) ?? readWritten(bare) ?? readHex(bare);
	return reading.ok ? reading : expected(start + reading.error.at, reading.error.expected);
}

/** How people call it: the spelling without what only marks it for {@link parseSpelling}. */
export const codeCalled = (code: AnyCode): string =>
	code.kind === 'own' ? code.written : formatSpelling(code);

/** The one spelling that Jaldi itself writes; {@link parseSpelling} reads it back to the same code. */
export function formatSpelling(code: AnyCode): string {
	switch (code.kind) {
		case 'dtc': {
			const suffix = code.failureType === null ? '' : `-${code.failureType}`;
			return code.code + suffix + (code.status === null ? '' : `/${hexByte(code.status)}`);
		}
		case 'j1939':
			return [
				`SPN ${code.spn} FMI ${code.fmi}`,
				...(code.occurrences === null ? [] : [`OC ${code.occurrences}`]),
				...(code.conversion === 0 ? [] : ['CM 1'])
			].join(' ');
		case 'own':
			return `=${code.written}`;
		case 'lamp':
			return `lamp ${code.groups.join('-')}`;
	}
}

/** A fault code as bytes on the wire: `40 35 14`. */
export function formatBytes(code: CodeText, failureType: string | null): string {
	const number = codeToNumber(code);
	return spacedHex(hex(Uint8Array.of(number >> 8, number & 0xff)) + (failureType ?? ''));
}
