import { bridged } from './bridged';
import { isNotAvailable, isWheel, sampleIntervalS, type Recording } from './recording';

/** Hardest braking and a gear lurch, on dry road. */
const VEHICLE_KMH_PER_S = 45;
const VEHICLE_SLACK_KMH = 3;
/** Tyres, rings and bends keep wheels within this share of each other. */
const WHEELS_SHARE = 0.15;
/** With all wheels gone their last speed is believed for so long; then the vehicle is looked for anew. */
const HOLD_S = 1;
const ROLLING_KMH = 3;
const ZERO_KMH = 0.6;
const COMMON_FROM_KMH = 12;
const MOVING_KMH = 8;
const DEAD_SHARE = 0.9;
/** More moments than this tell no more of a share. */
const ENOUGH_SAMPLES = 20_000;
/** Wheels turned by hand or in gear on stands are no faster than this. */
const STANDS_KMH = 25;
const TOGETHER_SHARE = 0.05;

/** The wheels of a recording on one clock, with what they say together. */
export interface WheelTable {
	names: string[];
	timeS: Float64Array;
	intervalS: number;
	/** Per wheel, km/h; NaN where not read or not available. */
	kmh: Float64Array[];
	/** Per wheel, 1 where the reading says "not available". */
	invalid: Uint8Array[];
	/** How fast the vehicle moves by the wheels that can be believed, km/h; NaN where none can. */
	reference: Float64Array;
	/** Per wheel: what it should read by all the others, before any bend; NaN where nobody knows. */
	expected: Float64Array[];
	/** Samples at which all wheels that had rolled were gone at once. */
	commonDrops: number[];
	/** Wheels that stand because the vehicle is on stands with the others driven; empty on the road. */
	onStands: string[];
}

/** @param recording one clock, channels of equal length */
export function wheelTable(recording: Recording): WheelTable {
	const names = [...recording.channels.keys()].filter(isWheel);
	const length = recording.timeS.length;
	const invalid = names.map(() => new Uint8Array(length));
	const kmh = names.map((name, k) => {
		const filled = bridged(recording.channels.get(name) ?? new Float64Array(length), recording.timeS);
		const flags = invalid[k] ?? new Uint8Array();
		for (let i = 0; i < length; i++) {
			const value = filled[i] ?? NaN;
			if (isNotAvailable(value)) {
				filled[i] = NaN;
				flags[i] = 1;
			}
		}
		return filled;
	});
	const vehicle = recording.channels.get('vehicle');
	const own = vehicle ? bridged(vehicle, recording.timeS) : null;
	const table: WheelTable = {
		names,
		timeS: recording.timeS,
		intervalS: sampleIntervalS(recording),
		kmh,
		invalid,
		reference: new Float64Array(length),
		expected: names.map(() => new Float64Array(length)),
		commonDrops: [],
		onStands: standing(names, kmh)
	};
	const dead = stayAtZero(kmh, own);
	const asleep = names.map((name, k) => table.onStands.includes(name) || dead[k] === true);
	follow(table, own, asleep);
	return table;
}

/**
 * Follows the vehicle through the recording: a wheel is believed while it is where the vehicle can have got to since the
 * sample before, so that two wheels gone at once do not outvote two that roll on. What no wheel says is held for a
 * second, without judging anybody meanwhile.
 */
function follow(table: WheelTable, own: Float64Array | null, asleep: readonly boolean[]): void {
	const { timeS, kmh, reference, expected } = table;
	const wheels = kmh.length;
	const sorted = new Float64Array(wheels + 1);
	const place = new Int8Array(wheels);
	const now = new Float64Array(wheels);
	const zeroYields = Math.min(2, wheels - 1);
	let speed = NaN;
	let heldFromS = NaN;
	for (let i = 0; i < timeS.length; i++) {
		const at = timeS[i] ?? 0;
		const stepS = i > 0 ? at - (timeS[i - 1] ?? 0) : Infinity;
		const lost = !Number.isNaN(heldFromS) && at - heldFromS > HOLD_S;
		const anew = Number.isNaN(speed) || stepS > HOLD_S || lost;
		const reach = anew ? Infinity : VEHICLE_KMH_PER_S * stepS + VEHICLE_SLACK_KMH + WHEELS_SHARE * speed;
		const vehicleKmh = own ? (own[i] ?? NaN) : NaN;
		let rolling = vehicleKmh > ROLLING_KMH ? 1 : 0;
		for (let k = 0; k < wheels; k++) {
			const value = asleep[k] ? NaN : (kmh[k]?.[i] ?? NaN);
			now[k] = value;
			if (value > ROLLING_KMH) rolling += 1;
		}
		const zeroCounts = rolling < zeroYields || rolling === 0;
		let count = 0;
		for (let k = 0; k < wheels; k++) {
			const value = now[k] ?? NaN;
			place[k] = -1;
			const believed =
				value === value && (anew || Math.abs(value - speed) <= reach) && (zeroCounts || value >= ZERO_KMH);
			if (!believed) continue;
			let to = count++;
			while (to > 0 && (sorted[to - 1] ?? 0) > value) {
				sorted[to] = sorted[to - 1] ?? 0;
				to -= 1;
			}
			sorted[to] = value;
			for (let j = 0; j < k; j++) if ((place[j] ?? -1) >= to) place[j] = (place[j] ?? 0) + 1;
			place[k] = to;
		}
		const few = count < 2 && vehicleKmh === vehicleKmh;
		if (count === 0 && !few) {
			if (Number.isNaN(heldFromS)) {
				heldFromS = at;
				if (speed > COMMON_FROM_KMH && !anew && allRead(now, asleep)) table.commonDrops.push(i);
			}
			if (anew) speed = NaN;
			reference[i] = NaN;
			for (let k = 0; k < wheels; k++) (expected[k] ?? reference)[i] = NaN;
			continue;
		}
		heldFromS = NaN;
		const all = few
			? count === 0
				? vehicleKmh
				: ((sorted[0] ?? 0) + vehicleKmh) / 2
			: middle(sorted, count, -1);
		speed = all;
		reference[i] = all;
		for (let k = 0; k < wheels; k++) {
			const skip = place[k] ?? -1;
			const column = expected[k];
			if (!column) continue;
			if (skip < 0) column[i] = all;
			else if (count === 1) column[i] = few ? vehicleKmh : all;
			else column[i] = middle(sorted, count, skip);
		}
	}
}

/** Whether there is a reading of every wheel at all: where some are missing, the recording has a hole. */
function allRead(now: Float64Array, asleep: readonly boolean[]): boolean {
	let read = 0;
	let awake = 0;
	for (let k = 0; k < now.length; k++) {
		if (asleep[k]) continue;
		awake += 1;
		if (!Number.isNaN(now[k] ?? NaN)) read += 1;
	}
	return awake > 1 && read === awake;
}

/** Median of the first `count` of a sorted list, without the one at `skip` (−1: all of them). */
function middle(sorted: Float64Array, count: number, skip: number): number {
	const n = skip < 0 ? count : count - 1;
	const at = (i: number) => sorted[skip >= 0 && i >= skip ? i + 1 : i] ?? NaN;
	const half = n >> 1;
	return n & 1 ? at(half) : (at(half - 1) + at(half)) / 2;
}

/** Per wheel, whether it reads zero while others (or the vehicle) roll, nearly all the time. */
function stayAtZero(kmh: readonly Float64Array[], own: Float64Array | null): boolean[] {
	const moving = kmh.map(() => 0);
	const zero = kmh.map(() => 0);
	const needed = Math.min(2, Math.max(1, kmh.length - 1));
	const length = kmh[0]?.length ?? 0;
	const stride = Math.max(1, Math.floor(length / ENOUGH_SAMPLES));
	for (let i = 0; i < length; i += stride) {
		let rolling = own && (own[i] ?? 0) > MOVING_KMH ? 1 : 0;
		for (let k = 0; k < kmh.length; k++) if ((kmh[k]?.[i] ?? 0) > MOVING_KMH) rolling += 1;
		if (rolling < needed) continue;
		for (let k = 0; k < kmh.length; k++) {
			const value = kmh[k]?.[i] ?? NaN;
			if (value !== value || rolling - (value > MOVING_KMH ? 1 : 0) < needed) continue;
			moving[k] = (moving[k] ?? 0) + 1;
			if (value < ZERO_KMH) zero[k] = (zero[k] ?? 0) + 1;
		}
	}
	return moving.map((count, k) => count > 0 && (zero[k] ?? 0) > DEAD_SHARE * count);
}

/**
 * Wheels that cannot be held against the others because the vehicle is on stands: those of the axle that never turns while
 * both wheels of another are driven slowly, or all of them where wheels are turned one by one.
 */
function standing(names: readonly string[], kmh: readonly Float64Array[]): string[] {
	const top = kmh.map((own) => own.reduce((most, value) => (value > most ? value : most), 0));
	const fastest = top.reduce((most, value) => Math.max(most, value), 0);
	if (fastest < ROLLING_KMH || fastest > STANDS_KMH) return [];
	const axles = names.map((name) => name.replace(/_(left|right)$/, ''));
	const still = [...new Set(axles)].filter((axle) =>
		axles.every((one, k) => one !== axle || (top[k] ?? 0) < ZERO_KMH)
	);
	const inside = names.filter((_, k) => still.includes(axles[k] ?? ''));
	const outside = names.map((_, k) => k).filter((k) => !still.includes(axles[k] ?? ''));
	if (inside.length >= 2 && outside.length >= 2 && outside.every((k) => (top[k] ?? 0) > ROLLING_KMH))
		return inside;
	return turnOneByOne(axles, kmh) ? [...names] : [];
}

/** Whether wheels of two axles, or both of the only one, hardly ever turn at the same time. */
function turnOneByOne(axles: readonly string[], kmh: readonly Float64Array[]): boolean {
	const oneAxle = new Set(axles).size === 1;
	let [turning, together] = [0, 0];
	for (let i = 0; i < (kmh[0]?.length ?? 0); i++) {
		let [first, count, apart] = [-1, 0, false];
		for (let k = 0; k < kmh.length; k++) {
			if (!((kmh[k]?.[i] ?? NaN) > ROLLING_KMH)) continue;
			count += 1;
			if (first < 0) first = k;
			else if (oneAxle || axles[k] !== axles[first]) apart = true;
		}
		if (count > 0) turning += 1;
		if (apart) together += 1;
	}
	return turning > 0 && together < TOGETHER_SHARE * turning;
}
