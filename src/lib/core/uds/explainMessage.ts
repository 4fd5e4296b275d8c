import { hex, hexByte, spacedHex } from '../bytes';
import { codeFromNumber } from '../codes/dtc';
import { statusPhrase } from '../codes/status';
import { decodeIdentifier, type ValueRule } from './identifierValue';
import { NEGATIVE, negativeResponseText } from './negativeResponse';
import { hasPart, partText, POSITIVE_OFFSET, serviceText, SUPPRESS_ANSWER } from './services';

/** A run of bytes in a diagnostic message, by its name. Fields follow each other without a gap and cover every byte. */
export interface Field {
	from: number;
	length: number;
	name: string;
	/** What the bytes say. */
	text: string;
}

/** How an identifier is laid out, and what it is called; null for one that nobody described. */
export type IdentifierLookup = (id: string) => (ValueRule & { name: string }) | null;

const READ_CODES = 0x19;
const READ_DATA = 0x22;
const WRITE_DATA = 0x2e;
const CLEAR = 0x14;
const ROUTINE = 0x31;
const EVERYTHING = 0xffffff;

/** Walks along a message and names what it passes; what is left at the end is named as data. */
class Walk {
	readonly fields: Field[] = [];
	at = 0;
	constructor(readonly bytes: Uint8Array) {}

	get left(): number {
		return this.bytes.length - this.at;
	}

	/** The next `length` bytes as a number, or null if the message ends before. */
	peek(length: number): number | null {
		if (this.left < length) return null;
		return this.bytes.subarray(this.at, this.at + length).reduce((sum, byte) => sum * 256 + byte, 0);
	}

	take(length: number, name: string, say: (value: number, raw: string) => string): boolean {
		const value = this.peek(length);
		if (value === null) return false;
		const raw = hex(this.bytes.subarray(this.at, this.at + length));
		this.fields.push({ from: this.at, length, name, text: say(value, raw) });
		this.at += length;
		return true;
	}

	rest(name: string): Field[] {
		if (this.left > 0) this.take(this.left, name, (_, raw) => spacedHex(raw));
		return this.fields;
	}
}

/** Every byte of a request or an answer, named. Total: a message that ends too soon is named as far as it goes. */
export function explainMessage(bytes: Uint8Array, identifier: IdentifierLookup): Field[] {
	const walk = new Walk(bytes);
	const service = walk.peek(1);
	if (service === null) return [];
	if (service === NEGATIVE) {
		walk.take(1, 'refusal', () => 'the module does not do what it was asked');
		walk.take(1, 'service asked for', (value) => serviceText(value));
		walk.take(1, 'reason', (value) => negativeResponseText(value));
		return walk.rest('more');
	}
	const answer = (service & POSITIVE_OFFSET) !== 0;
	const asked = answer ? service - POSITIVE_OFFSET : service;
	walk.take(1, 'service', () => `${answer ? 'answer to: ' : ''}${serviceText(asked)}`);
	let part: number | null = null;
	if (hasPart(asked)) {
		part = (walk.peek(1) ?? 0) & ~SUPPRESS_ANSWER;
		walk.take(1, 'part of the service', (value) => {
			const name = partText(asked, value) ?? `part ${hexByte(value & ~SUPPRESS_ANSWER)}`;
			return value & SUPPRESS_ANSWER ? `${name}; no answer wanted` : name;
		});
	}
	switch (asked) {
		case READ_CODES:
			return answer ? codesAnswer(walk, part, identifier) : codesRequest(walk, part);
		case READ_DATA:
			return answer ? identifierValues(walk, identifier) : identifierNames(walk, identifier);
		case WRITE_DATA:
			return answer ? identifierNames(walk, identifier) : identifierValues(walk, identifier);
		case CLEAR:
			walk.take(3, 'which codes', (value, raw) =>
				value === EVERYTHING ? 'every code' : `group or code ${codeOf(value, raw)}`
			);
			return walk.rest('more');
		case ROUTINE:
			walk.take(2, 'routine', (_, raw) => `number ${raw}`);
			return walk.rest(answer ? 'result' : 'what it is given');
		default:
			return walk.rest('data');
	}
}

const codeOf = (value: number, raw: string) => `${codeFromNumber(value >> 8)}-${raw.slice(4)}`;
const takeCode = (walk: Walk) => walk.take(3, 'code', codeOf);
const takeStatus = (walk: Walk) => walk.take(1, 'status', (value) => statusPhrase(value));
const takeMask = (walk: Walk, name: string) =>
	walk.take(1, name, (value) => (value === 0xff ? 'every bit' : `bits ${hexByte(value)}`));
const takeRecord = (walk: Walk) =>
	walk.take(1, 'record', (value) => (value === 0xff ? 'every record' : `number ${value}`));

function codesRequest(walk: Walk, part: number | null): Field[] {
	switch (part) {
		case 0x01:
		case 0x02:
		case 0x0f:
			takeMask(walk, 'status wanted');
			break;
		case 0x04:
		case 0x06:
			takeCode(walk);
			takeRecord(walk);
			break;
		case 0x09:
			takeCode(walk);
	}
	return walk.rest('more');
}

function codesAnswer(walk: Walk, part: number | null, identifier: IdentifierLookup): Field[] {
	switch (part) {
		case 0x01:
		case 0x07:
			takeMask(walk, 'status the module can tell');
			walk.take(1, 'how codes are written', (value) =>
				value === 0x01 ? 'three bytes, ISO 14229-1' : `format ${value}`
			);
			walk.take(2, 'number of codes', String);
			break;
		case 0x03:
			while (walk.left >= 4) {
				takeCode(walk);
				takeRecord(walk);
			}
			break;
		case 0x04:
			takeCode(walk);
			takeStatus(walk);
			while (walk.left >= 2) {
				takeRecord(walk);
				const count = walk.peek(1) ?? 0;
				walk.take(1, 'values in it', String);
				for (let i = 0; i < count; i++)
					if (!takeIdentifierValue(walk, identifier)) return walk.rest('not readable');
			}
			break;
		case 0x06:
			takeCode(walk);
			takeStatus(walk);
			while (walk.left >= 2) {
				takeRecord(walk);
				walk.take(1, 'its value', String);
			}
			break;
		case 0x14:
			while (walk.left >= 4) {
				takeCode(walk);
				walk.take(1, 'detection counter', (value) => String(value > 127 ? value - 256 : value));
			}
			break;
		default:
			takeMask(walk, 'status the module can tell');
			while (walk.left >= 4) {
				takeCode(walk);
				takeStatus(walk);
			}
	}
	return walk.rest('cut: not a whole record');
}

function identifierNames(walk: Walk, identifier: IdentifierLookup): Field[] {
	while (walk.left >= 2)
		walk.take(2, 'identifier', (_, raw) => `${raw}, ${identifier(raw)?.name ?? 'not described'}`);
	return walk.rest('more');
}

function identifierValues(walk: Walk, identifier: IdentifierLookup): Field[] {
	while (walk.left >= 2) if (!takeIdentifierValue(walk, identifier)) break;
	return walk.rest('value');
}

/** An identifier and its value; false where its length is not known or the message ends in it. */
function takeIdentifierValue(walk: Walk, identifier: IdentifierLookup): boolean {
	const id = walk.peek(2);
	if (id === null) return false;
	const rule = identifier(hexByte(id >> 8) + hexByte(id & 0xff));
	walk.take(2, 'identifier', (_, raw) => `${raw}, ${rule?.name ?? 'not described'}`);
	if (!rule || walk.left < rule.bytes) return false;
	return walk.take(rule.bytes, rule.name, (_, raw) => {
		const value = decodeIdentifier(rule, raw);
		return value.kind === 'not-available'
			? 'not available'
			: value.kind === 'wrong-length'
				? raw
				: value.text;
	});
}
