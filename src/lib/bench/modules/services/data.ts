import { hexToBytes } from '@noble/hashes/utils.js';
import { identifiers } from '../../../../../library';
import { Nrc, refuse, sessionRefusal, STANDSTILL_MPS, toHex, type Service } from './service';

/** More identifiers than this do not fit one answer. */
export const MOST_IDENTIFIERS = 12;

export const readData: Service = (data, module, world) => {
	if (data.length === 0 || data.length % 2 !== 0) return refuse(Nrc.wrongLength);
	if (data.length / 2 > MOST_IDENTIFIERS) return refuse(Nrc.answerTooLong);
	const reply = [0x62];
	for (let at = 0; at < data.length; at += 2) {
		const id = data.slice(at, at + 2);
		const raw = module.identify(toHex(id), world);
		if (raw !== null) reply.push(...id, ...hexToBytes(raw));
	}
	return reply.length > 1 ? reply : refuse(Nrc.outOfRange);
};

export const writeData: Service = (data, module, world) => {
	if (data.length < 3) return refuse(Nrc.wrongLength);
	const id = toHex(data.slice(0, 2));
	const refused = sessionRefusal(module);
	if (refused) return refused;
	if (!module.nonVolatile.mayWrite(id)) return refuse(Nrc.outOfRange);
	if (!module.unlocked) return refuse(Nrc.locked);
	if (data.length - 2 !== module.nonVolatile.bytes(id)) return refuse(Nrc.wrongLength);
	if (world.motion.speedMps > STANDSTILL_MPS) return refuse(Nrc.conditions);
	return module.nonVolatile.write(id, toHex(data.slice(2)))
		? [0x6e, ...data.slice(0, 2)]
		: refuse(Nrc.outOfRange);
};

const STOP = 0x04;
/** Seconds between two times that one identifier is sent, by transmission mode: slow, medium, fast. */
const EVERY_S: Record<number, number> = { 0x01: 1, 0x02: 0.2, 0x03: 0.02 };
const MOST_PERIODIC = 16;

/** Periodic number → identifier. */
const PERIODIC = new Map(
	[...identifiers.values()].flatMap(({ id, periodic }) =>
		periodic ? [[parseInt(periodic, 16), id] as const] : []
	)
);

export const readPeriodically: Service = ([mode, ...numbers], module, world) => {
	if (mode === undefined) return refuse(Nrc.wrongLength);
	const refused = sessionRefusal(module);
	if (refused) return refused;
	if (mode === STOP) {
		module.stopPeriodic(numbers);
		return [0x6a];
	}
	const everyS = EVERY_S[mode];
	if (everyS === undefined) return refuse(Nrc.outOfRange);
	if (numbers.length === 0 || numbers.length > MOST_PERIODIC) return refuse(Nrc.wrongLength);
	const known = numbers.flatMap((number) => {
		const id = PERIODIC.get(number);
		return id !== undefined && module.identify(id, world) !== null ? [{ number, id }] : [];
	});
	if (known.length === 0) return refuse(Nrc.outOfRange);
	module.startPeriodic(known, everyS);
	return [0x6a];
};
