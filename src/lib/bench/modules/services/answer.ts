import { NEGATIVE, RESPONSE_PENDING } from '../../../core/uds/negativeResponse';
import type { World } from '../../world';
import type { Module } from '../module';
import { clearCodes, readCodes } from './codes';
import { controlRoutine, operateOutput, securityAccess } from './control';
import { readData, readPeriodically, writeData } from './data';
import { Nrc, refuse, type Service } from './service';

/** An answer and when it leaves the module, in seconds from the request. No answers at all = suppressed. */
export interface Answer {
	afterS: number;
	bytes: number[];
}

const ANSWER_S = 0.004;
/** Each identifier asked for has to be fetched: a long list slows the refresh. */
const PER_IDENTIFIER_S = 0.006;
const CLEAR_S = 0.12;
const WRITE_S = 0.05;
const P2_MS = 50;
const P2_STAR_10MS = 500;

/** Services whose first data byte is a sub-function that can ask for no answer (bit 7). */
const WITH_SUBFUNCTION = new Set([0x10, 0x11, 0x19, 0x27, 0x31, 0x3e]);

const changeSession: Service = ([kind, ...rest], module) => {
	if (rest.length > 0 || kind === undefined) return refuse(Nrc.wrongLength);
	if (kind !== 0x01 && kind !== 0x03) return refuse(Nrc.unknownPart);
	// Every change of session locks again, also to the same one.
	module.endSession();
	module.session = kind === 0x03 ? 'extended' : 'default';
	return [0x50, kind, P2_MS >> 8, P2_MS & 0xff, P2_STAR_10MS >> 8, P2_STAR_10MS & 0xff];
};

const reset: Service = ([kind, ...rest], module) => {
	if (rest.length > 0 || kind === undefined) return refuse(Nrc.wrongLength);
	if (kind !== 0x01) return refuse(Nrc.unknownPart);
	module.restart();
	return [0x51, kind];
};

const testerPresent: Service = ([zero, ...rest]) => {
	if (rest.length > 0 || zero === undefined) return refuse(Nrc.wrongLength);
	return zero === 0 ? [0x7e, 0x00] : refuse(Nrc.unknownPart);
};

const SERVICES: Record<number, Service> = {
	0x10: changeSession,
	0x11: reset,
	0x14: clearCodes,
	0x19: readCodes,
	0x22: readData,
	0x27: securityAccess,
	0x2a: readPeriodically,
	0x2e: writeData,
	0x2f: operateOutput,
	0x31: controlRoutine,
	0x3e: testerPresent
};

/** Services that take long enough to say so first. */
const TAKES_S: Record<number, number> = { 0x14: CLEAR_S, 0x2e: WRITE_S };

/** One request to one module → its answers, by ISO 14229-1. Any bytes are allowed; nothing throws. */
export function answer(request: Uint8Array, module: Module, world: World): Answer[] {
	const [sid, ...rest] = Array.from(request);
	if (sid === undefined) return [];
	const service = SERVICES[sid];
	const negative = (nrc: number) => [NEGATIVE, sid, nrc];
	if (!service) return [{ afterS: ANSWER_S, bytes: negative(Nrc.unknownService) }];
	const quiet = WITH_SUBFUNCTION.has(sid) && ((rest[0] ?? 0) & 0x80) !== 0;
	if (quiet) rest[0] = (rest[0] ?? 0) & 0x7f;
	const reply = service(rest, module, world);
	if (!Array.isArray(reply)) return [{ afterS: ANSWER_S, bytes: negative(reply.nrc) }];
	if (quiet) return [];
	const takesS = TAKES_S[sid];
	if (takesS !== undefined) {
		return [
			{ afterS: ANSWER_S, bytes: negative(RESPONSE_PENDING) },
			{ afterS: takesS, bytes: reply }
		];
	}
	const fetchS = sid === 0x22 ? (rest.length / 2) * PER_IDENTIFIER_S : 0;
	return [{ afterS: ANSWER_S + fetchS, bytes: reply }];
}
