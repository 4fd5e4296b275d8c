import { shippedBook, titleSource, type CodeBook } from '../../../../library/codes';
import {
	failureMode,
	failureType,
	kindOfFailure,
	type KindOfFailure
} from '../../../../library/failureTypes';
import type { Position } from '../../../../library/positions';
import { hexByte, type TextError } from '../../core/bytes';
import type { HeavyCode, HeavyLamps } from '../../core/codes/diagnosticMessage';
import { codeId, numberOf } from '../../core/codes/codeId';
import { codeSystem, definedBy, type CodeSystem, type DefinedBy } from '../../core/codes/dtc';
import { formatSpelling, parseSpelling, type AnyCode } from '../../core/codes/spelling';
import { decodeStatus, type CodeStatus } from '../../core/codes/status';
import type { ToldCode } from '../../core/uds/codesInResponse';

/** A code with everything that its bytes and the library tell of it, as the `decode` command writes it. */
export interface DecodedCode {
	input: string;
	kind: AnyCode['kind'];
	/** `C0035`; for other kinds the spelling that Jaldi writes. */
	code: string;
	failureTypeByte: string | null;
	failureType: string | null;
	failureClass: string | null;
	system: CodeSystem | null;
	definedBy: DefinedBy | null;
	corner: Position | null;
	status: ({ byte: string } & CodeStatus) | null;
	title: string | null;
	spn?: number;
	fmi?: number;
	occurrences?: number | null;
	groups?: number[];
}

export interface UnreadText {
	input: string;
	error: string;
	/** Sign of the text at which it stopped making sense, from 1. */
	column: number;
}

const bareStatus = (byte: number) => ({ byte: hexByte(byte), ...decodeStatus(byte) });

/** What a code says of how it failed; null where it does not say. */
export function kindToldBy(code: AnyCode, book: CodeBook, maker: string | null): KindOfFailure | null {
	if (code.kind === 'lamp' || (code.kind === 'dtc' && code.failureType === null)) return null;
	return kindOfFailure(codeId(code), titleSource(book, { code: numberOf(code), maker }));
}

/** One code → what is known of it. */
export function decodeCode(
	code: AnyCode,
	input: string,
	book: CodeBook = shippedBook,
	maker: string | null = null
): DecodedCode {
	switch (code.kind) {
		case 'dtc': {
			const kind = code.failureType === null ? null : failureType(code.failureType);
			const source = titleSource(book, { code: code.code, failureType: code.failureType, maker });
			return {
				input,
				kind: 'dtc',
				code: code.code,
				failureTypeByte: code.failureType,
				failureType: kind?.text ?? null,
				failureClass: kind?.class ?? null,
				system: codeSystem(code.code),
				definedBy: definedBy(code.code),
				corner: source?.corner ?? null,
				status: code.status === null ? null : bareStatus(code.status),
				title: source?.title ?? null
			};
		}
		case 'j1939': {
			const kind = failureMode(code.fmi);
			const parameter = titleSource(book, { code: numberOf(code), maker });
			return {
				input,
				kind: 'j1939',
				code: formatSpelling({ ...code, occurrences: null, conversion: 0 }),
				failureTypeByte: null,
				failureType: kind.text,
				failureClass: kind.class,
				system: null,
				definedBy: null,
				corner: parameter?.corner ?? null,
				status: null,
				title: parameter?.title ?? null,
				spn: code.spn,
				fmi: code.fmi,
				occurrences: code.occurrences
			};
		}
		case 'own': {
			const source = titleSource(book, { code: numberOf(code), maker });
			const kind = kindToldBy(code, book, maker);
			return {
				input,
				kind: 'own',
				code: code.written,
				failureTypeByte: null,
				failureType: kind?.text ?? null,
				failureClass: kind?.class ?? null,
				system: null,
				definedBy: 'maker',
				corner: source?.corner ?? null,
				status: null,
				title: source?.title ?? null
			};
		}
		case 'lamp':
			return {
				input,
				kind: 'lamp',
				code: formatSpelling(code),
				failureTypeByte: null,
				failureType: null,
				failureClass: null,
				system: null,
				definedBy: null,
				corner: null,
				status: null,
				title: null,
				groups: code.groups
			};
	}
}

/** A code that a module told on the line. */
export const decodeTold = (told: ToldCode, book?: CodeBook, maker?: string | null): DecodedCode => {
	const code: AnyCode = { kind: 'dtc', ...told };
	return decodeCode(code, formatSpelling(code), book, maker);
};

export const decodeHeavy = (heavy: HeavyCode): DecodedCode => {
	const code: AnyCode = { kind: 'j1939', ...heavy };
	return decodeCode(code, formatSpelling(code));
};

export const expectation = ({ at, expected }: TextError): string => `at sign ${at + 1}: expected ${expected}`;

/** One text → the codes in it, or what was expected. */
export function decodeText(
	text: string,
	book?: CodeBook,
	maker?: string | null
): { codes: DecodedCode[]; what: string; lamps: HeavyLamps | null } | UnreadText {
	const spelled = parseSpelling(text);
	if (!spelled.ok) return { input: text, error: expectation(spelled.error), column: spelled.error.at + 1 };
	const { codes, what, lamps } = spelled.value;
	return { codes: codes.map((code) => decodeCode(code, text, book, maker)), what, lamps };
}
