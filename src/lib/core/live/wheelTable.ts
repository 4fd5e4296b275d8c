import { isWheel, type Recording } from './recording';

/** A reading from here on is no speed but a module's word for "not available". */
const INVALID_FROM_KMH = 250;
/** A gap in a channel that is read less often than others is bridged up to this many of its own intervals. */
const BRIDGED_INTERVALS = 3;

/** The wheels of a recording on one clock, with what they say together. */
export interface WheelTable {
	names: string[];
	timeS: Float64Array;
	/** Per wheel, km/h; NaN where not read or not available. */
	kmh: Float64Array[];
	/** Per wheel, 1 where the reading says "not available". */
	invalid: Uint8Array[];
	/** What the wheels that can be believed say together, km/h: their median, the vehicle's own speed where they are too few. */
	reference: Float64Array;
	/** Per wheel: what it should read by all the others. */
	expected: Float64Array[];
}

export function wheelTable(recording: Recording): WheelTable {
	const names = [...recording.channels.keys()].filter(isWheel);
	const length = recording.timeS.length;
	const invalid = names.map(() => new Uint8Array(length));
	const kmh = names.map((name, k) => {
		const filled = bridged(recording.channels.get(name) ?? new Float64Array(length), recording.timeS);
		for (let i = 0; i < length; i++) {
			if ((filled[i] ?? 0) < INVALID_FROM_KMH) continue;
			filled[i] = NaN;
			const flags = invalid[k];
			if (flags) flags[i] = 1;
		}
		return filled;
	});
	const vehicle = recording.channels.get('vehicle');
	const own = vehicle ? bridged(vehicle, recording.timeS) : null;
	const dead = names.map((_, k) => staysAtZero(kmh, k));
	const reference = new Float64Array(length);
	const expected = names.map(() => new Float64Array(length));
	const now = new Float64Array(names.length);
	const sorted = new Float64Array(names.length + 1);
	for (let i = 0; i < length; i++) {
		for (let k = 0; k < names.length; k++) now[k] = dead[k] ? NaN : (kmh[k]?.[i] ?? NaN);
		const vehicleKmh = own?.[i] ?? NaN;
		reference[i] = medianWithout(now, -1, vehicleKmh, sorted);
		for (let k = 0; k < names.length; k++) {
			const column = expected[k];
			if (column) column[i] = medianWithout(now, k, vehicleKmh, sorted);
		}
	}
	return { names, timeS: recording.timeS, kmh, invalid, reference, expected };
}

/**
 * Median of the wheels but one; with fewer than two of them the vehicle's own speed has a vote. Sorted by insertion: there
 * are two to six wheels and hundreds of thousands of moments.
 */
function medianWithout(now: Float64Array, without: number, vehicleKmh: number, sorted: Float64Array): number {
	let count = 0;
	const insert = (value: number) => {
		let at = count++;
		while (at > 0 && (sorted[at - 1] ?? 0) > value) {
			sorted[at] = sorted[at - 1] ?? 0;
			at -= 1;
		}
		sorted[at] = value;
	};
	for (let k = 0; k < now.length; k++) {
		const value = now[k] ?? NaN;
		if (k !== without && !Number.isNaN(value)) insert(value);
	}
	if (count < 2 && !Number.isNaN(vehicleKmh)) insert(vehicleKmh);
	if (count === 0) return NaN;
	const middle = count >> 1;
	return count % 2 ? (sorted[middle] ?? NaN) : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}

const MOVING_KMH = 8;
const ZERO_KMH = 0.6;
const ZERO_SHARE = 0.9;

/** Whether a wheel stands while the fastest of the others rolls, nearly all the time. */
function staysAtZero(kmh: readonly Float64Array[], k: number): boolean {
	let [moving, zero] = [0, 0];
	const own = kmh[k];
	for (let i = 0; own && i < own.length; i++) {
		let rolling = 0;
		for (let j = 0; j < kmh.length; j++) if (j !== k && (kmh[j]?.[i] ?? 0) > MOVING_KMH) rolling += 1;
		const value = own[i] ?? NaN;
		if (rolling < Math.min(2, kmh.length - 1) || Number.isNaN(value)) continue;
		moving += 1;
		if (value < ZERO_KMH) zero += 1;
	}
	return moving > 0 && zero > ZERO_SHARE * moving;
}

/** Carries a value forward over the rows in which a slower channel was not read. */
function bridged(values: Float64Array, timeS: Float64Array): Float64Array {
	const at: number[] = [];
	for (let i = 0; i < values.length; i++) if (!Number.isNaN(values[i] ?? NaN)) at.push(i);
	const filled = values.slice();
	if (at.length === values.length || at.length < 3) return filled;
	const steps = at.slice(1).map((i, n) => (timeS[i] ?? 0) - (timeS[at[n] ?? 0] ?? 0));
	const usual = steps.sort((a, b) => a - b)[steps.length >> 1] ?? 0;
	let last = -1;
	for (let i = 0; i < filled.length; i++) {
		if (!Number.isNaN(filled[i] ?? NaN)) last = i;
		else if (last >= 0 && (timeS[i] ?? 0) - (timeS[last] ?? 0) < BRIDGED_INTERVALS * usual)
			filled[i] = filled[last] ?? NaN;
	}
	return filled;
}
