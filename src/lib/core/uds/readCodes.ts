import { hex, hexByte } from '../bytes';
import type { DtcHex } from '../codes/dtc';
import { fail, ok, type Result } from '../result';

/**
 * Service 0x19, read code information (ISO 14229-1, 12.3): requests and the answers to them. Answers are parsed whole or
 * refused with what was wrong; bytes are never guessed.
 */
export const ReadCodes = {
	countByMask: 0x01,
	byMask: 0x02,
	snapshotList: 0x03,
	snapshot: 0x04,
	extended: 0x06,
	supported: 0x0a
} as const;

export interface CodeAndStatus {
	dtc: DtcHex;
	status: number;
}

export interface CodeList {
	/** Which status bits this module can tell at all. */
	availabilityMask: number;
	codes: CodeAndStatus[];
}

/** Answer to 19 02 or 19 0A: 59 xx mask, then four bytes a code. */
export function parseCodeList(bytes: Uint8Array): Result<CodeList> {
	if (bytes.length < 3) return fail(`expected at least 3 bytes (59, part, mask), got ${bytes.length}`);
	if ((bytes.length - 3) % 4 !== 0) {
		return fail(`${bytes.length - 3} bytes of codes is no multiple of 4, so the last code is cut`);
	}
	const codes: CodeAndStatus[] = [];
	for (let at = 3; at < bytes.length; at += 4) {
		codes.push({ dtc: hex(bytes.slice(at, at + 3)), status: bytes[at + 3] ?? 0 });
	}
	return ok({ availabilityMask: bytes[2] ?? 0, codes });
}

/** Counts by status, by severity, in the mirror memory and of the emission system. */
const COUNTS = [0x01, 0x07, 0x11, 0x12];

/** Answer to 19 01: 59 01 mask format count(2). */
export function parseCount(bytes: Uint8Array): Result<number> {
	if (bytes.length !== 6) return fail(`expected 6 bytes, got ${bytes.length}`);
	if (!COUNTS.includes(bytes[1] ?? 0)) return fail('expected the answer to a count');
	return ok(((bytes[4] ?? 0) << 8) | (bytes[5] ?? 0));
}

export interface RawValue {
	/** Data identifier, four hex digits. */
	id: string;
	/** The value's bytes in hex. */
	raw: string;
}

export interface Snapshot {
	record: number;
	values: RawValue[];
}

/**
 * Answer to 19 04: 59 04 code(3) status, then records: number, count of identifiers, and identifier(2) + data for each.
 * The length of each value is not in the message: it comes from the vehicle's identifier list. An identifier nobody has
 * described ends the parse with an error, since all that follows it is then unreadable.
 *
 * @param lengthOf bytes of an identifier's value, or null when unknown
 */
export function parseSnapshots(
	bytes: Uint8Array,
	lengthOf: (id: string) => number | null
): Result<Snapshot[]> {
	if (bytes.length < 6) return fail(`expected at least 6 bytes, got ${bytes.length}`);
	const snapshots: Snapshot[] = [];
	let at = 6;
	while (at < bytes.length) {
		const record = bytes[at] ?? 0;
		const count = bytes[at + 1];
		if (count === undefined) return fail(`record ${record} ends at byte ${at} before its count`);
		at += 2;
		const values: RawValue[] = [];
		for (let i = 0; i < count; i++) {
			if (at + 2 > bytes.length) return fail(`record ${record} is cut at byte ${at}`);
			const id = hex(bytes.slice(at, at + 2));
			const length = lengthOf(id);
			if (length === null) return fail(`identifier ${id} at byte ${at} is not described for this vehicle`);
			if (at + 2 + length > bytes.length) return fail(`value of ${id} at byte ${at} is cut`);
			values.push({ id, raw: hex(bytes.slice(at + 2, at + 2 + length)) });
			at += 2 + length;
		}
		snapshots.push({ record, values });
	}
	return ok(snapshots);
}

/** Extended data record numbers our vehicles answer (ISO 14229-1 leaves them to the maker). */
export const ExtendedRecord = { occurrences: 0x01, ageing: 0x02, faultCounter: 0x03 } as const;

export interface ExtendedData {
	occurrences: number | null;
	ageingCycles: number | null;
}

/** Bytes of the records that are described; the message does not say how long a record is. */
const RECORD_BYTES: Readonly<Record<number, number>> = {
	[ExtendedRecord.occurrences]: 1,
	[ExtendedRecord.ageing]: 1,
	[ExtendedRecord.faultCounter]: 1
};

/**
 * Answer to 19 06: 59 06 code(3) status, then number and data for each record. A record whose length nobody has described ends
 * the parse with an error, since all that follows it is then unreadable.
 */
export function parseExtended(bytes: Uint8Array): Result<ExtendedData> {
	if (bytes.length < 6) return fail(`expected at least 6 bytes, got ${bytes.length}`);
	const records = new Map<number, number>();
	for (let at = 6; at < bytes.length;) {
		const record = bytes[at] ?? 0;
		const length = RECORD_BYTES[record];
		if (length === undefined) return fail(`record ${hexByte(record)} at byte ${at} is not described`);
		if (at + 1 + length > bytes.length) return fail(`record ${hexByte(record)} at byte ${at} is cut`);
		records.set(record, bytes[at + 1] ?? 0);
		at += 1 + length;
	}
	return ok({
		occurrences: records.get(ExtendedRecord.occurrences) ?? null,
		ageingCycles: records.get(ExtendedRecord.ageing) ?? null
	});
}
