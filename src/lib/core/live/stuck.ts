import type { WheelTable } from './wheelTable';

/** So long without a valid reading it is no dropout but a circuit that tells "not available". */
const INVALID_RUN_S = 2;
const INVALID_SHARE = 0.6;
const ZERO_SHARE = 0.85;
const ZERO_KMH = 0.6;
const MOVING_KMH = 8;
/** A reading that does not change by a digit for so long, while the others change by so much, is no reading. */
const FROZEN_S = 4;
const FROZEN_WHILE_KMH = 8;

export interface Stuck {
	how: 'zero' | 'invalid' | 'frozen' | 'never-read';
	from: number;
	to: number;
	/** What it is stuck at, km/h; 255 for "not available". */
	value: number;
	othersKmh: number;
	/** From the first sample to the last: no other look at this wheel is worth anything. */
	allAlong: boolean;
}

/** A signal that says nothing for as long as it matters; null where it speaks. */
export function stuckSignal(table: WheelTable, k: number): Stuck | null {
	return notAvailable(table, k) ?? atZero(table, k) ?? frozen(table, k);
}

function notAvailable({ kmh, invalid, timeS, expected, intervalS }: WheelTable, k: number): Stuck | null {
	const own = kmh[k] ?? new Float64Array();
	const flags = invalid[k] ?? new Uint8Array();
	let [read, bad, longestS, runFrom, longFrom, longTo, first, lastBad] = [0, 0, 0, -1, -1, -1, -1, -1];
	for (let i = 0; i < own.length; i++) {
		if (flags[i]) {
			bad += 1;
			if (first < 0) first = i;
			lastBad = i;
			if (runFrom < 0) runFrom = i;
			const runS = (timeS[i] ?? 0) - (timeS[runFrom] ?? 0) + intervalS;
			if (runS >= INVALID_RUN_S) {
				if (longFrom < 0) longFrom = runFrom;
				longTo = i;
			}
			longestS = Math.max(longestS, runS);
		} else {
			runFrom = -1;
			if (!Number.isNaN(own[i] ?? NaN)) read += 1;
		}
	}
	if (read + bad === 0 && (expected[k] ?? own).some((value) => value > MOVING_KMH)) {
		return { how: 'never-read', from: 0, to: own.length - 1, value: 255, othersKmh: 0, allAlong: true };
	}
	if (bad === 0 || (longFrom < 0 && read > 0)) return null;
	const mostly = bad > INVALID_SHARE * (read + bad);
	return {
		how: 'invalid',
		from: longFrom < 0 ? first : longFrom,
		to: longTo < 0 ? lastBad : longTo,
		value: 255,
		othersKmh: 0,
		allAlong: mostly
	};
}

function atZero({ kmh, expected, onStands, names }: WheelTable, k: number): Stuck | null {
	if (onStands.includes(names[k] ?? '')) return null;
	const own = kmh[k] ?? new Float64Array();
	const should = expected[k] ?? new Float64Array();
	let [moving, zero, from, to] = [0, 0, -1, -1];
	for (let i = 0; i < own.length; i++) {
		const value = own[i] ?? NaN;
		if (!((should[i] ?? NaN) > MOVING_KMH) || value !== value) continue;
		moving += 1;
		if (value < ZERO_KMH) zero += 1;
		if (from < 0) from = i;
		to = i;
	}
	if (moving <= 2 || zero <= ZERO_SHARE * moving) return null;
	return { how: 'zero', from, to, value: 0, othersKmh: 0, allAlong: true };
}

/** The module's substitute for a signal that it no longer trusts: it stays as it is while the others change. */
function frozen({ kmh, expected, timeS }: WheelTable, k: number): Stuck | null {
	const own = kmh[k] ?? new Float64Array();
	const should = expected[k] ?? new Float64Array();
	let best: Stuck | null = null;
	let from = 0;
	let [low, high] = [Infinity, -Infinity];
	for (let i = 0; i < own.length; i++) {
		const value = own[i] ?? NaN;
		if (value !== own[from] || value !== value || value < ZERO_KMH) {
			from = i;
			[low, high] = [Infinity, -Infinity];
		}
		const now = should[i] ?? NaN;
		if (now < low) low = now;
		if (now > high) high = now;
		const lastsS = (timeS[i] ?? 0) - (timeS[from] ?? 0);
		if (lastsS < FROZEN_S || high - low < FROZEN_WHILE_KMH || value !== value) continue;
		const bestS = best ? (timeS[best.to] ?? 0) - (timeS[best.from] ?? 0) : 0;
		if (lastsS > bestS) {
			const allAlong = lastsS > ZERO_SHARE * ((timeS.at(-1) ?? 0) - (timeS[0] ?? 0));
			best = { how: 'frozen', from, to: i, value, othersKmh: high, allAlong };
		}
	}
	return best;
}
