import type { LiveEvent } from './findings';
import type { WheelTable } from './wheelTable';

/** Below this speed nothing is judged: the slowest wheels of healthy passive sensors read nothing there. */
const JUDGE_FROM_KMH = 6;
/** A wheel under this share of the others has lost its signal; no turn and no honest slip goes so far. */
const LOST_SHARE = 0.55;
const BACK_SHARE = 0.75;
/** Nearer to standstill than this a missing start or end of the signal is usual. */
const STANDSTILL_KMH = 3;
/** A reading so far above the others … */
const SPIKE_SHARE = 1.25;
const SPIKE_KMH = 8;
/** … that came and went faster than any wheel can turn up, and did not last. */
const SPIKE_KMH_PER_S = 120;
const SPIKE_LONGEST_S = 0.6;
/** A wheel that turns up by itself and stays up so long really spins. */
const SLIP_FROM_S = 1.2;
const SLIP_SHARE = 1.35;

export interface WheelEvents {
	dropouts: LiveEvent[];
	latePickups: LiveEvent[];
	earlyLosses: LiveEvent[];
	spikes: LiveEvent[];
	slips: LiveEvent[];
}

/** Runs of samples in which something holds. */
function* runs(length: number, holds: (i: number) => boolean): Generator<[number, number]> {
	let from = -1;
	for (let i = 0; i < length; i++) {
		if (holds(i)) {
			if (from < 0) from = i;
		} else if (from >= 0) {
			yield [from, i - 1];
			from = -1;
		}
	}
	if (from >= 0) yield [from, length - 1];
}

/** What happened to one wheel, held against the others at each moment. */
export function wheelEvents(table: WheelTable, k: number): WheelEvents {
	const found: WheelEvents = { dropouts: [], latePickups: [], earlyLosses: [], spikes: [], slips: [] };
	const own = table.kmh[k] ?? new Float64Array();
	const should = table.expected[k] ?? new Float64Array();
	const { timeS } = table;
	const value = (i: number) => own[i] ?? NaN;
	const expected = (i: number) => should[i] ?? NaN;
	const lost = (i: number) =>
		expected(i) > JUDGE_FROM_KMH && (value(i) < LOST_SHARE * expected(i) || table.invalid[k]?.[i] === 1);
	for (const [from, to] of runs(own.length, lost)) {
		const lowest = Math.min(
			...Array.from({ length: Math.min(to - from + 1, 1000) }, (_, n) => value(from + n)).filter(
				(v) => !Number.isNaN(v)
			),
			Infinity
		);
		const event = { from, to, value: Number.isFinite(lowest) ? lowest : 0 };
		const began = cameFromStandstill(should, from, -1);
		const ended = cameFromStandstill(should, to, 1);
		const after = expected(Math.min(to + 1, own.length - 1));
		if (began && to < own.length - 1 && !ended) found.latePickups.push({ ...event, value: after });
		else if (ended && from > 0 && !began) found.earlyLosses.push({ ...event, value: expected(from) });
		else if (!began && !ended && wasRight(from - 1)) found.dropouts.push(event);
	}
	function wasRight(i: number): boolean {
		return i >= 0 && value(i) > BACK_SHARE * expected(i);
	}
	const high = (i: number) => value(i) > SPIKE_SHARE * expected(i) + SPIKE_KMH;
	for (const [from, to] of runs(own.length, high)) {
		const lastsS = (timeS[to] ?? 0) - (timeS[from] ?? 0);
		const jump = (a: number, b: number) =>
			Math.abs(value(b) - value(a)) / Math.max(1e-3, Math.abs((timeS[b] ?? 0) - (timeS[a] ?? 0)));
		const peak = Math.max(
			...Array.from({ length: Math.min(to - from + 1, 1000) }, (_, n) => value(from + n))
		);
		const rises = from > 0 && jump(from - 1, from) > SPIKE_KMH_PER_S;
		const single = to - from <= 1;
		if (lastsS <= SPIKE_LONGEST_S && (rises || single) && from > 0 && to < own.length - 1) {
			found.spikes.push({ from, to, value: peak });
		} else if (lastsS >= SLIP_FROM_S && !rises && peak > SLIP_SHARE * expected(from)) {
			found.slips.push({ from, to, value: peak });
		}
	}
	return found;
}

/** Whether the vehicle stood right before (step −1) or after (step 1) a place, the others falling or rising all the way. */
function cameFromStandstill(expected: Float64Array, at: number, step: 1 | -1): boolean {
	for (let i = at + step; i >= 0 && i < expected.length; i += step) {
		const now = expected[i] ?? NaN;
		if (now < STANDSTILL_KMH) return true;
		// It rolled on above the judged speed with this wheel reading.
		if (now > JUDGE_FROM_KMH) return false;
	}
	return false;
}
