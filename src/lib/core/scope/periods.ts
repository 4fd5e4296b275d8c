import type { Pulses } from './pulses';

/** A pause between two pulses that is longer than the pulses around it explain. */
export interface Pause {
	/** The pulse after which it begins. */
	after: number;
	/** Its length in periods of the pulses around it. */
	periods: number;
	/** Length of those, in samples. */
	expected: number;
}

/** Pulses that come in between: more than the ones around them leave room for. */
export interface Extra {
	/** The first period that is too short, and the last. */
	from: number;
	to: number;
	/** How many too many. */
	count: number;
}

export interface Rhythm {
	pauses: Pause[];
	extras: Extra[];
	/** Samples from each pulse to the next. */
	period: Float64Array;
	/** Place of each pulse on the ring, counted in teeth from the first; a pause counts the teeth that did not show. */
	tooth: Int32Array;
	/** Median of |ln(period / period before)|: 0 for a smooth run, above 0.25 nothing is regular. */
	irregularity: number;
}

/** Neighbours on each side that a period is held against. */
const SIDE = 5;
const LEAST_SIDE = 3;
const LONG = 1.5;
const TWICE = 1.8;
const SHORT = 0.62;
/** Faster changes of the period than this from one side to the other are the wheel, not the signal. */
const STEADY = 1.4;
/** A pause this long is one though the wheel has another speed after it, if it slows on neither side. */
const SUDDEN_PERIODS = 6;
const SUDDEN_CHANGE = 1.5;
/** Median change from one period to the next from which nothing is regular. */
export const IRREGULAR = 0.25;
const MOST_EXTRA = 64;

/** What of the pulses' rhythm does not come from the wheel's speed. */
export function rhythmOf({ count, rise }: Pulses): Rhythm {
	const period = new Float64Array(Math.max(0, count - 1));
	for (let i = 0; i + 1 < count; i++) period[i] = (rise[i + 1] ?? 0) - (rise[i] ?? 0);
	const pauses: Pause[] = [];
	const extras: Extra[] = [];
	for (let i = LEAST_SIDE; i < period.length - LEAST_SIDE; i++) {
		const here = period[i] ?? 0;
		const [last, next] = [period[i - 1] ?? 0, period[i + 1] ?? 0];
		if (here > 1.3 * last || here > 1.3 * next) {
			const pause = pauseAt(period, i);
			if (pause) pauses.push(pause);
		} else if (here < 0.75 * last) {
			const extra = extraAt(period, i);
			if (extra) {
				extras.push(extra);
				i = extra.to;
			}
		}
	}
	return {
		pauses,
		extras,
		period,
		tooth: teethOf(period, pauses, extras),
		irregularity: irregularityOf(period)
	};
}

const scratch = new Float64Array(SIDE);
/** Median of up to five periods from a place on, going one way. */
function sideMedian(period: Float64Array, from: number, step: 1 | -1): number {
	let n = 0;
	for (let i = from; n < SIDE && i >= 0 && i < period.length; i += step) {
		const value = period[i] ?? 0;
		let at = n++;
		while (at > 0 && (scratch[at - 1] ?? 0) > value) {
			scratch[at] = scratch[at - 1] ?? 0;
			at -= 1;
		}
		scratch[at] = value;
	}
	return n === 0 ? NaN : (scratch[(n - 1) >> 1] ?? NaN);
}

function pauseAt(period: Float64Array, i: number): Pause | null {
	const here = period[i] ?? 0;
	const before = sideMedian(period, i - 1, -1);
	const after = sideMedian(period, i + 1, 1);
	const [short, long] = [Math.min(before, after), Math.max(before, after)];
	const expected = (before + after) / 2;
	if (here < LONG * long) return null;
	const nextTo = [period[i - 1] ?? 0, period[i + 1] ?? 0];
	const settled = nextTo.every((value, k) => {
		const own = k === 0 ? before : after;
		// Beside it may be another gap, which is twice as long at least.
		return value < STEADY * own || value > TWICE * own;
	});
	if (long < STEADY * short && settled) return { after: i, periods: here / expected, expected };
	if (here > SUDDEN_PERIODS * long && !slowsTowards(period, i, -1) && !slowsTowards(period, i, 1))
		return { after: i, periods: here / expected, expected };
	return null;
}

/** Whether the periods grow towards a pause: the wheel comes to rest by itself. */
function slowsTowards(period: Float64Array, i: number, step: 1 | -1): boolean {
	const near = period[i + step] ?? NaN;
	const far = period[i + SIDE * step] ?? near;
	return near > SUDDEN_CHANGE * far;
}

function extraAt(period: Float64Array, from: number): Extra | null {
	const before = sideMedian(period, from - 1, -1);
	if (!((period[from] ?? 0) < SHORT * before)) return null;
	let sum = 0;
	for (let to = from; to < Math.min(period.length, from + MOST_EXTRA); to++) {
		sum += period[to] ?? 0;
		const after = sideMedian(period, to + 1, 1);
		const expected = (before + after) / 2;
		if (!(Math.max(before, after) < STEADY * Math.min(before, after))) continue;
		const fits = Math.max(1, Math.round(sum / expected));
		if (Math.abs(sum / expected - fits) > 0.3) continue;
		const count = to - from + 1 - fits;
		if (count > 0 && (period[to + 1] ?? expected) > SHORT * expected) return { from, to, count };
	}
	return null;
}

function teethOf(period: Float64Array, pauses: readonly Pause[], extras: readonly Extra[]): Int32Array {
	const tooth = new Int32Array(period.length + 1);
	let [nextPause, nextExtra] = [0, 0];
	for (let i = 0; i < period.length; i++) {
		let by = 1;
		const pause = pauses[nextPause];
		if (pause && pause.after === i) {
			by = Math.max(1, Math.round(pause.periods));
			nextPause += 1;
		}
		const extra = extras[nextExtra];
		if (extra && i >= extra.from) {
			// Of a group with pulses too many, the first ones count for nothing.
			if (i < extra.from + extra.count) by = 0;
			if (i >= extra.to) nextExtra += 1;
		}
		tooth[i + 1] = (tooth[i] ?? 0) + by;
	}
	return tooth;
}

const MOST_LOOKED_AT = 20_000;

function irregularityOf(period: Float64Array): number {
	const step = Math.max(1, Math.floor(period.length / MOST_LOOKED_AT));
	const logs: number[] = [];
	for (let i = 1; i < period.length; i += step)
		logs.push(Math.abs(Math.log((period[i] ?? 1) / (period[i - 1] ?? 1))));
	if (logs.length < 8) return 0;
	return Float64Array.from(logs).sort()[logs.length >> 1] ?? 0;
}
