import { securityKey } from '../../../core/uds/securityKey';
import { Nrc, refuse, sessionRefusal, STANDSTILL_MPS, toHex, type Service } from './service';

const REQUEST_SEED = 0x01;
const SEND_KEY = 0x02;
const MOST_WRONG_KEYS = 3;
const WAIT_S = 10;

/**
 * Security access, a stand-in: the key is the two's complement of the seed, as in the example of ISO 14229-1 (seed 3657,
 * key C9A9). It keeps nobody out and is not meant to.
 */
export const securityAccess: Service = ([level, ...data], module, world) => {
	if (level === undefined) return refuse(Nrc.wrongLength);
	if (level !== REQUEST_SEED && level !== SEND_KEY) return refuse(Nrc.unknownPart);
	const refused = sessionRefusal(module);
	if (refused) return refused;
	const { lock } = module;
	if (level === REQUEST_SEED) {
		if (data.length > 0) return refuse(Nrc.wrongLength);
		if (world.timeS < lock.waitUntilS) return refuse(Nrc.mustWait);
		lock.seed = module.unlocked ? 0 : 1 + Math.floor(world.random() * 0xfffe);
		return [0x67, level, lock.seed >> 8, lock.seed & 0xff];
	}
	if (data.length !== 2) return refuse(Nrc.wrongLength);
	if (lock.seed === null) return refuse(Nrc.sequence);
	const right = securityKey(lock.seed);
	lock.seed = null;
	if ((((data[0] ?? 0) << 8) | (data[1] ?? 0)) === right) {
		module.unlocked = true;
		lock.wrong = 0;
		return [0x67, level];
	}
	lock.wrong += 1;
	if (lock.wrong < MOST_WRONG_KEYS) return refuse(Nrc.wrongKey);
	lock.wrong = 0;
	lock.waitUntilS = world.timeS + WAIT_S;
	return refuse(Nrc.tooManyKeys);
};

const START = 0x01;
const STOP = 0x02;
const RESULT = 0x03;
const RESULTS = { running: 0x00, good: 0x01, failed: 0x02 } as const;

/** Routines: 71, the part, the routine's number, and how it stands (00 running, 01 good, 02 failed). */
export const controlRoutine: Service = ([part, ...data], module, world) => {
	if (part === undefined || data.length < 2) return refuse(Nrc.wrongLength);
	if (part !== START && part !== STOP && part !== RESULT) return refuse(Nrc.unknownPart);
	const refused = sessionRefusal(module);
	if (refused) return refused;
	const id = toHex(data.slice(0, 2));
	const routine = module.routines.get(id);
	if (!routine) return refuse(Nrc.outOfRange);
	if (data.length > 2) return refuse(Nrc.wrongLength);
	if (part === START) {
		const nrc = routine.refuses?.(world) ?? null;
		if (nrc !== null) return refuse(nrc);
		module.routine = { id, endsAtS: world.timeS + routine.takesS, result: 'running' };
		return [0x71, part, ...data, RESULTS.running];
	}
	if (module.routine?.id !== id) return refuse(Nrc.sequence);
	if (part === STOP) {
		module.routine = null;
		return [0x71, part, ...data];
	}
	return [0x71, part, ...data, RESULTS[module.routine.result]];
};

const RETURN_CONTROL = 0x00;
const ADJUST = 0x03;

/** Operates an output: 6F, its identifier, the part, its state. */
export const operateOutput: Service = ([high, low, part, ...state], module, world) => {
	if (high === undefined || low === undefined || part === undefined) return refuse(Nrc.wrongLength);
	const refused = sessionRefusal(module);
	if (refused) return refused;
	const id = toHex([high, low]);
	if (!module.outputs.has(id)) return refuse(Nrc.outOfRange);
	if (part !== RETURN_CONTROL && part !== ADJUST) return refuse(Nrc.outOfRange);
	if (state.length !== (part === ADJUST ? 1 : 0)) return refuse(Nrc.wrongLength);
	if (world.motion.speedMps > STANDSTILL_MPS) return refuse(Nrc.conditions);
	module.outputs.set(id, part === ADJUST ? (state[0] ?? 0) : 0);
	return [0x6f, high, low, part, module.outputs.get(id) ?? 0];
};
