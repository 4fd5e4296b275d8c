import { hexByte } from '../bytes';

/** Diagnostic services by their request byte (ISO 14229-1; 0x01–0x0A ISO 15031-5; 0x12–0x3B older ones), in our words. */
const SERVICES: Record<number, string> = {
	0x01: 'read emission data',
	0x02: 'read emission snapshot',
	0x03: 'read confirmed emission codes',
	0x04: 'clear emission codes',
	0x06: 'read monitor results',
	0x07: 'read pending emission codes',
	0x08: 'operate an emission component',
	0x09: 'read vehicle information',
	0x0a: 'read permanent emission codes',
	0x10: 'change session',
	0x11: 'reset module',
	0x12: 'read snapshot (older)',
	0x14: 'clear codes',
	0x17: 'read code status (older)',
	0x18: 'read codes by status (older)',
	0x19: 'read code information',
	0x1a: 'read identification (older)',
	0x21: 'read data by local number (older)',
	0x22: 'read data',
	0x23: 'read memory',
	0x24: 'read scaling',
	0x27: 'unlock module',
	0x28: 'switch communication',
	0x29: 'authenticate',
	0x2a: 'read data periodically',
	0x2c: 'define data',
	0x2e: 'write data',
	0x2f: 'operate an output',
	0x30: 'operate an output (older)',
	0x31: 'run a routine',
	0x34: 'begin download',
	0x35: 'begin upload',
	0x36: 'transfer data',
	0x37: 'end transfer',
	0x38: 'transfer a file',
	0x3b: 'write data by local number (older)',
	0x3d: 'write memory',
	0x3e: 'keep session alive',
	0x83: 'set timing',
	0x84: 'secured message',
	0x85: 'switch code setting',
	0x86: 'report on event',
	0x87: 'change line speed'
};

/** What each part of "read code information" asks for, by sub-function. */
const READ_CODES_PARTS: Record<number, string> = {
	0x01: 'count by status',
	0x02: 'codes by status',
	0x03: 'list of snapshots',
	0x04: 'snapshot of a code',
	0x05: 'stored data by record number',
	0x06: 'extended data of a code',
	0x07: 'count by severity',
	0x08: 'codes by severity',
	0x09: 'severity of a code',
	0x0a: 'every code the module knows',
	0x0b: 'first code that failed',
	0x0c: 'first code that was confirmed',
	0x0d: 'latest code that failed',
	0x0e: 'latest code that was confirmed',
	0x0f: 'codes in the mirror memory',
	0x14: 'fault detection counters',
	0x15: 'codes with permanent status',
	0x16: 'extended data by record number',
	0x17: 'codes in a memory that is named',
	0x18: 'snapshot in a memory that is named',
	0x19: 'extended data in a memory that is named',
	0x42: 'codes of a functional group by severity',
	0x55: 'permanent codes of a functional group',
	0x56: 'codes of a readiness group'
};

const SESSIONS: Record<number, string> = {
	0x01: 'default session',
	0x02: 'programming session',
	0x03: 'extended session',
	0x04: 'safety session'
};

const RESETS: Record<number, string> = {
	0x01: 'hard reset',
	0x02: 'key off and on',
	0x03: 'soft reset'
};

const ROUTINES: Record<number, string> = { 0x01: 'start', 0x02: 'stop', 0x03: 'ask for results' };

const PARTS: Record<number, Record<number, string>> = {
	0x10: SESSIONS,
	0x11: RESETS,
	0x19: READ_CODES_PARTS,
	0x31: ROUTINES
};

export const POSITIVE_OFFSET = 0x40;
export const SUPPRESS_ANSWER = 0x80;
/** Services whose second byte is a part of the service, with a bit that asks for silence. */
const HAS_PART = new Set([0x10, 0x11, 0x19, 0x27, 0x28, 0x29, 0x2c, 0x31, 0x3e, 0x83, 0x85, 0x86, 0x87]);

export const isKnownService = (service: number): boolean => service in SERVICES;
export const hasPart = (service: number): boolean => HAS_PART.has(service);

/** Whether a request asks the module not to answer when all is well. */
export const asksForSilence = (request: Uint8Array): boolean =>
	hasPart(request[0] ?? 0) && ((request[1] ?? 0) & SUPPRESS_ANSWER) !== 0;

export const serviceText = (service: number): string =>
	SERVICES[service] ?? `service ${hexByte(service)}, not named by the standard`;

/** The part of a service that its second byte asks for, or null where nobody has named it. */
export const partText = (service: number, part: number): string | null =>
	PARTS[service]?.[part & ~SUPPRESS_ANSWER] ?? null;

/** What a request asks for: "read code information: codes by status". */
export function requestText(request: Uint8Array): string {
	const [service = 0, second] = request;
	const part = second !== undefined && hasPart(service) ? partText(service, second) : null;
	return part ? `${serviceText(service)}: ${part}` : serviceText(service);
}
