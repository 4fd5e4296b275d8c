import { dtcBytes } from '../../core/codes/dtc';
import { NEGATIVE, RESPONSE_PENDING } from '../../core/uds/negativeResponse';
import { ExtendedRecord, ReadCodes } from '../../core/uds/readCodes';
import { hexToBytes } from '@noble/hashes/utils.js';
import type { Module, World } from './module';
import type { Monitor } from './monitor';

/** An answer and when it leaves the module, in seconds from the request. No answers at all = suppressed. */
export interface Answer {
	afterS: number;
	bytes: number[];
}

/** All bits these modules can tell. */
export const AVAILABILITY_MASK = 0xff;
/** Code format identifier of ISO 14229-1: three-byte codes. */
const FORMAT_ISO_14229 = 0x01;
const ANSWER_S = 0.004;
const CLEAR_S = 0.12;
/** Clearing while the wheels turn is refused. */
const STANDSTILL_MPS = 0.8;
const P2_MS = 50;
const P2_STAR_10MS = 500;

type Reply = number[] | { nrc: number };
const refuse = (nrc: number) => ({ nrc });

/** What one service does with the bytes after its own. */
type Service = (data: number[], module: Module, world: World) => Reply;

/** Services whose first data byte is a sub-function that can ask for no answer (bit 7). */
const WITH_SUBFUNCTION = new Set([0x10, 0x11, 0x19, 0x3e]);

const SERVICES: Record<number, Service> = {
	0x10: ([kind, ...rest], module) => {
		if (rest.length > 0 || kind === undefined) return refuse(0x13);
		if (kind !== 0x01 && kind !== 0x03) return refuse(0x12);
		module.session = kind === 0x03 ? 'extended' : 'default';
		return [0x50, kind, P2_MS >> 8, P2_MS & 0xff, P2_STAR_10MS >> 8, P2_STAR_10MS & 0xff];
	},
	0x11: ([kind, ...rest], module) => {
		if (rest.length > 0 || kind === undefined) return refuse(0x13);
		if (kind !== 0x01) return refuse(0x12);
		module.restart();
		return [0x51, kind];
	},
	0x14: (data, module, world) => {
		if (data.length !== 3) return refuse(0x13);
		if (world.motion.speedMps > STANDSTILL_MPS) return refuse(0x22);
		const group = toHex(data);
		return module.clear(group === 'FFFFFF' ? null : group) ? [0x54] : refuse(0x31);
	},
	0x19: (data, module) => readCodes(data, module),
	0x22: (data, module, world) => {
		if (data.length === 0 || data.length % 2 !== 0) return refuse(0x13);
		const reply = [0x62];
		for (let at = 0; at < data.length; at += 2) {
			const id = data.slice(at, at + 2);
			const raw = module.identify(toHex(id), world);
			if (raw !== null) reply.push(...id, ...hexToBytes(raw));
		}
		return reply.length > 1 ? reply : refuse(0x31);
	},
	0x3e: ([zero, ...rest]) => {
		if (rest.length > 0 || zero === undefined) return refuse(0x13);
		return zero === 0 ? [0x7e, 0x00] : refuse(0x12);
	}
};

function readCodes([part, ...data]: number[], module: Module): Reply {
	if (part === undefined) return refuse(0x13);
	const listed = (monitors: Monitor[]) => monitors.flatMap((m) => [...dtcBytes(m.rule.dtc), m.statusByte]);
	const mask = data[0] ?? 0;
	const matching = module.monitors.filter((m) => (m.statusByte & mask & AVAILABILITY_MASK) !== 0);
	switch (part) {
		case ReadCodes.countByMask:
			if (data.length !== 1) return refuse(0x13);
			return [0x59, part, AVAILABILITY_MASK, FORMAT_ISO_14229, matching.length >> 8, matching.length & 0xff];
		case ReadCodes.byMask:
			if (data.length !== 1) return refuse(0x13);
			return [0x59, part, AVAILABILITY_MASK, ...listed(matching)];
		case ReadCodes.supported:
			if (data.length !== 0) return refuse(0x13);
			return [0x59, part, AVAILABILITY_MASK, ...listed(module.monitors)];
		case ReadCodes.snapshotList:
			if (data.length !== 0) return refuse(0x13);
			return [
				0x59,
				part,
				...module.monitors.flatMap((m) => m.snapshots.flatMap((s) => [...dtcBytes(m.rule.dtc), s.record]))
			];
		case ReadCodes.snapshot:
		case ReadCodes.extended:
			return readOneCode(part, data, module);
		default:
			return refuse(0x12);
	}
}

function readOneCode(part: number, data: number[], module: Module): Reply {
	if (data.length !== 4) return refuse(0x13);
	const dtc = data.slice(0, 3);
	const monitor = module.monitors.find((m) => m.rule.dtc === toHex(dtc));
	if (!monitor) return refuse(0x31);
	const wanted = (record: number) => data[3] === 0xff || data[3] === record;
	const head = [0x59, part, ...dtc, monitor.statusByte];
	if (part === ReadCodes.snapshot) {
		const records = monitor.snapshots.filter((s) => wanted(s.record));
		if (records.length === 0 && data[3] !== 0xff) return refuse(0x31);
		return [
			...head,
			...records.flatMap((s) => [
				s.record,
				s.values.length,
				...s.values.flatMap((v) => [...hexToBytes(v.id), ...hexToBytes(v.raw)])
			])
		];
	}
	const records: [number, number][] = [
		[ExtendedRecord.occurrences, monitor.occurrences],
		[ExtendedRecord.ageing, monitor.ageingCycles],
		[ExtendedRecord.faultCounter, monitor.faultCounter & 0xff]
	];
	const chosen = records.filter(([record]) => wanted(record));
	return chosen.length > 0 ? [...head, ...chosen.flat()] : refuse(0x31);
}

/** One request to one module → its answers, by ISO 14229-1. Any bytes are allowed; nothing throws. */
export function answer(request: Uint8Array, module: Module, world: World): Answer[] {
	const [sid, ...rest] = Array.from(request);
	if (sid === undefined) return [];
	const service = SERVICES[sid];
	const negative = (nrc: number) => [NEGATIVE, sid, nrc];
	if (!service) return [{ afterS: ANSWER_S, bytes: negative(0x11) }];
	const quiet = WITH_SUBFUNCTION.has(sid) && ((rest[0] ?? 0) & 0x80) !== 0;
	if (quiet) rest[0] = (rest[0] ?? 0) & 0x7f;
	const reply = service(rest, module, world);
	if (!Array.isArray(reply)) return [{ afterS: ANSWER_S, bytes: negative(reply.nrc) }];
	if (quiet) return [];
	if (sid === 0x14) {
		return [
			{ afterS: ANSWER_S, bytes: negative(RESPONSE_PENDING) },
			{ afterS: CLEAR_S, bytes: reply }
		];
	}
	return [{ afterS: ANSWER_S, bytes: reply }];
}

const toHex = (bytes: number[]) => bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join('');
