import { hex } from '../bytes';
import { codeFromNumber, type CodeText } from '../codes/dtc';
import { fail, ok, type Result } from '../result';

/** A code as a module told it: two code bytes, and what else came with them. */
export interface ToldCode {
	code: CodeText;
	/** Two hex digits, or null from services that send two bytes a code. */
	failureType: string | null;
	/** Status byte 0–255, or null where the answer carries none. */
	status: number | null;
}

export interface ToldCodes {
	/** What the answer is, in words. */
	what: string;
	codes: ToldCode[];
	/** Every code is listed, fault or not, so that the list alone tells of no fault. */
	supportedOnly: boolean;
}

export type ResponseError = { byte: number; expected: string };

/** How one answer to "read code information" is laid out: bytes before the list, bytes each, places within. */
interface Layout {
	what: string;
	/** Bytes before the first record, the service byte included. */
	head: number;
	/** Bytes of a record. */
	each: number;
	/** Where in a record its three code bytes stand. */
	codeAt: number;
	/** Where in a record its status stands; null = none. */
	statusAt: number | null;
	/** Only the first record is a code; what follows is data of it. */
	single?: boolean;
	supportedOnly?: boolean;
}

const byMask = (what: string): Layout => ({ what, head: 3, each: 4, codeAt: 0, statusAt: 3 });
const oneWithData = (what: string): Layout => ({
	what,
	head: 2,
	each: 4,
	codeAt: 0,
	statusAt: 3,
	single: true
});

/** Answers of service 0x19 that name codes, by sub-function (ISO 14229-1, 12.3). */
const LAYOUTS: Record<number, Layout> = {
	0x02: byMask('codes by status'),
	0x03: { what: 'list of snapshots', head: 2, each: 4, codeAt: 0, statusAt: null },
	0x04: oneWithData('snapshot of a code'),
	0x05: { what: 'stored data by record number', head: 3, each: 4, codeAt: 0, statusAt: 3, single: true },
	0x06: oneWithData('extended data of a code'),
	0x08: { what: 'codes by severity', head: 3, each: 6, codeAt: 2, statusAt: 5 },
	0x09: { what: 'severity of a code', head: 3, each: 6, codeAt: 2, statusAt: 5 },
	0x0a: { ...byMask('every code the module knows'), supportedOnly: true },
	0x0b: byMask('first code that failed'),
	0x0c: byMask('first code that was confirmed'),
	0x0d: byMask('latest code that failed'),
	0x0e: byMask('latest code that was confirmed'),
	0x0f: byMask('codes in the mirror memory'),
	0x10: oneWithData('extended data from the mirror memory'),
	0x13: byMask('codes of the emission system'),
	0x14: { what: 'fault detection counters', head: 2, each: 4, codeAt: 0, statusAt: null },
	0x15: byMask('codes with permanent status'),
	0x16: { what: 'extended data by record number', head: 3, each: 4, codeAt: 0, statusAt: 3, single: true },
	0x17: { what: 'codes in a memory that is named', head: 4, each: 4, codeAt: 0, statusAt: 3 },
	0x18: {
		what: 'snapshot in a memory that is named',
		head: 3,
		each: 4,
		codeAt: 0,
		statusAt: 3,
		single: true
	},
	0x19: {
		what: 'extended data in a memory that is named',
		head: 3,
		each: 4,
		codeAt: 0,
		statusAt: 3,
		single: true
	},
	/** Group, masks of status and severity, format. */
	0x42: { what: 'codes of a functional group by severity', head: 6, each: 5, codeAt: 1, statusAt: 4 },
	/** Group, mask of status, format. */
	0x55: { what: 'permanent codes of a functional group', head: 5, each: 4, codeAt: 0, statusAt: 3 },
	/** Group, mask of status, format, readiness group. */
	0x56: { what: 'codes of a readiness group', head: 6, each: 4, codeAt: 0, statusAt: 3 }
};

const READ_CODES_ANSWER = 0x59;
const TWO_BYTE_SERVICES: Record<number, string> = {
	0x43: 'confirmed codes',
	0x47: 'codes pending in this drive',
	0x4a: 'permanent codes'
};

/** What short answers are filled up with. */
const PADDING = [0x00, 0x55, 0xaa, 0xcc, 0xff];

/** Whether a sub-function of "read code information" answers with codes. */
export const isCodeList = (sub: number): boolean => sub in LAYOUTS;

/** Whether these bytes look like an answer that lists codes, judged by the first byte and the shape. */
export function looksLikeCodeAnswer(bytes: Uint8Array): boolean {
	const [service = 0, second = 0] = bytes;
	if (service === READ_CODES_ANSWER) return second in LAYOUTS && bytes.length > 4;
	if (!(service in TWO_BYTE_SERVICES) || second === 0) return false;
	const padding = bytes.subarray(2 + 2 * second);
	const whole = bytes.length >= 2 + 2 * second;
	return whole && padding.every((byte) => PADDING.includes(byte) && byte === padding[0]);
}

/**
 * The codes in a positive answer of service 0x19 (ISO 14229-1) or 0x03, 0x07, 0x0A (ISO 15031-5, count and two bytes a
 * code). An answer without codes gives none; one of another service, or cut in a record, is an error with its byte.
 */
export function codesInResponse(bytes: Uint8Array): Result<ToldCodes, ResponseError> {
	const [service = -1, sub = -1] = bytes;
	const twoByte = TWO_BYTE_SERVICES[service];
	if (twoByte) return twoByteCodes(bytes, twoByte);
	if (service !== READ_CODES_ANSWER) return fail({ byte: 0, expected: 'an answer that lists codes (59 …)' });
	const layout = LAYOUTS[sub];
	if (!layout) return fail({ byte: 1, expected: 'a kind of code list known to ISO 14229-1' });
	const { what, head, each, codeAt, statusAt, single, supportedOnly = false } = layout;
	if (bytes.length < head) {
		return fail({ byte: bytes.length, expected: `${head} bytes before the first code` });
	}
	const codes: ToldCode[] = [];
	for (let at = head; at < bytes.length; at += each) {
		if (at + each > bytes.length) {
			return fail({ byte: bytes.length, expected: `${each} bytes for each code, the last one is cut` });
		}
		const code = at + codeAt;
		codes.push({
			code: codeFromNumber(((bytes[code] ?? 0) << 8) | (bytes[code + 1] ?? 0)),
			failureType: hex(bytes.subarray(code + 2, code + 3)),
			status: statusAt === null ? null : (bytes[at + statusAt] ?? null)
		});
		if (single) break;
	}
	return ok({ what, codes, supportedOnly });
}

function twoByteCodes(bytes: Uint8Array, what: string): Result<ToldCodes, ResponseError> {
	const count = bytes[1];
	if (count === undefined) return fail({ byte: 1, expected: 'the number of codes' });
	if (bytes.length < 2 + 2 * count) {
		return fail({ byte: bytes.length, expected: `two bytes for each of ${count} codes` });
	}
	const codes: ToldCode[] = [];
	for (let i = 0; i < count; i++) {
		const number = ((bytes[2 + 2 * i] ?? 0) << 8) | (bytes[3 + 2 * i] ?? 0);
		if (number !== 0) codes.push({ code: codeFromNumber(number), failureType: null, status: null });
	}
	return ok({ what, codes, supportedOnly: false });
}
