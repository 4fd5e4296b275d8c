import { hexToBytes } from '@noble/hashes/utils.js';
import { dtcBytes } from '../../../core/codes/dtc';
import { ExtendedRecord, ReadCodes } from '../../../core/uds/readCodes';
import type { Module } from '../module';
import type { Monitor } from '../monitor';
import { Nrc, refuse, STANDSTILL_MPS, toHex, type Reply, type Service } from './service';

/** All bits these modules can tell. */
const AVAILABILITY_MASK = 0xff;
/** Code format identifier of ISO 14229-1: three-byte codes. */
const FORMAT_ISO_14229 = 0x01;
const ALL_RECORDS = 0xff;
const ALL_CODES = 'FFFFFF';

export const clearCodes: Service = (data, module, world) => {
	if (data.length !== 3) return refuse(Nrc.wrongLength);
	if (world.motion.speedMps > STANDSTILL_MPS) return refuse(Nrc.conditions);
	const group = toHex(data);
	return module.clear(group === ALL_CODES ? null : group) ? [0x54] : refuse(Nrc.outOfRange);
};

export const readCodes: Service = ([part, ...data], module) => {
	if (part === undefined) return refuse(Nrc.wrongLength);
	const listed = (monitors: Monitor[]) => monitors.flatMap((m) => [...dtcBytes(m.rule.dtc), m.statusByte]);
	const mask = data[0] ?? 0;
	const matching = module.monitors.filter((m) => (m.statusByte & mask & AVAILABILITY_MASK) !== 0);
	switch (part) {
		case ReadCodes.countByMask:
			if (data.length !== 1) return refuse(Nrc.wrongLength);
			return [0x59, part, AVAILABILITY_MASK, FORMAT_ISO_14229, matching.length >> 8, matching.length & 0xff];
		case ReadCodes.byMask:
			if (data.length !== 1) return refuse(Nrc.wrongLength);
			return [0x59, part, AVAILABILITY_MASK, ...listed(matching)];
		case ReadCodes.supported:
			if (data.length !== 0) return refuse(Nrc.wrongLength);
			return [0x59, part, AVAILABILITY_MASK, ...listed(module.monitors)];
		case ReadCodes.snapshotList:
			if (data.length !== 0) return refuse(Nrc.wrongLength);
			return [
				0x59,
				part,
				...module.monitors.flatMap((m) => m.snapshots.flatMap((s) => [...dtcBytes(m.rule.dtc), s.record]))
			];
		case ReadCodes.snapshot:
		case ReadCodes.extended:
			return readOneCode(part, data, module);
		default:
			return refuse(Nrc.unknownPart);
	}
};

function readOneCode(part: number, data: number[], module: Module): Reply {
	if (data.length !== 4) return refuse(Nrc.wrongLength);
	const dtc = data.slice(0, 3);
	const monitor = module.monitors.find((m) => m.rule.dtc === toHex(dtc));
	if (!monitor) return refuse(Nrc.outOfRange);
	const wanted = (record: number) => data[3] === ALL_RECORDS || data[3] === record;
	const head = [0x59, part, ...dtc, monitor.statusByte];
	if (part === ReadCodes.snapshot) {
		const records = monitor.snapshots.filter((s) => wanted(s.record));
		if (records.length === 0 && data[3] !== ALL_RECORDS) return refuse(Nrc.outOfRange);
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
	return chosen.length > 0 ? [...head, ...chosen.flat()] : refuse(Nrc.outOfRange);
}
