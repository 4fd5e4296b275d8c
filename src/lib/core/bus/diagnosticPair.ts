import { fail, ok, type Result } from '../result';
import { idText } from './frameLog';

/** The two identifiers of one conversation: the tester's and the module's. */
export interface DiagnosticPair {
	request: number;
	response: number;
	extended: boolean;
}

/** Requests to every module at once: 7DF, 18DBttss. */
const TO_ALL_STANDARD = 0x7df;
const PHYSICAL_FORMAT = 0xda;
const FUNCTIONAL_FORMAT = 0xdb;
const PARTNER_OFFSET = 8;

const format = (id: number) => (id >>> 16) & 0xff;
/** Data page bits: diagnostics are on page 0. */
const page = (id: number) => (id >>> 24) & 3;

/** Whether an identifier can carry diagnostics: 7xx, or 29 bits with the format DA or DB (ISO 15765-4). */
export function isDiagnosticId(id: number, extended: boolean): boolean {
	if (!extended) return id >= 0x700;
	return page(id) === 0 && (format(id) === PHYSICAL_FORMAT || format(id) === FUNCTIONAL_FORMAT);
}

/** Whether an identifier speaks to every module at once. */
export const isToAll = (id: number, extended: boolean): boolean =>
	extended ? format(id) === FUNCTIONAL_FORMAT : id === TO_ALL_STANDARD;

/** The same identifier with target and source exchanged. */
const turned = (id: number) => ((id & 0xffff0000) | ((id & 0xff) << 8) | ((id >>> 8) & 0xff)) >>> 0;

/** Where the answer to a request on this identifier comes from. */
export const answerId = (id: number, extended: boolean): number =>
	extended ? turned(id) : id + PARTNER_OFFSET;

/** On which identifier the request was that is answered on this one. */
export const requestId = (id: number, extended: boolean): number =>
	extended ? turned(id) : id - PARTNER_OFFSET;

/** The tester's address in an answer on 29 bits, for matching a request that went to all. */
export const testerOf = (responseId: number): number => (responseId >>> 8) & 0xff;

/** `7E0:7E8` or `18DA10F1:18DAF110`. */
export function parsePair(text: string): Result<DiagnosticPair> {
	const match = /^([0-9A-F]{3}|[0-9A-F]{8}):([0-9A-F]{3}|[0-9A-F]{8})$/i.exec(text.trim());
	const [request = '', response = ''] = match?.slice(1) ?? [];
	if (!match || request.length !== response.length) {
		return fail(
			`two identifiers of 3 or of 8 hex digits with a colon between them, such as 7E0:7E8, not "${text}"`
		);
	}
	const extended = request.length === 8;
	const pair = { request: parseInt(request, 16), response: parseInt(response, 16), extended };
	const most = extended ? 0x1fffffff : 0x7ff;
	if (pair.request > most || pair.response > most)
		return fail(`identifiers up to ${idText(most, extended)}, not "${text}"`);
	if (pair.request === pair.response) return fail('two different identifiers');
	return ok(pair);
}
