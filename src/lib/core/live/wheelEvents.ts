import {
	AGAIN_KMH,
	AGAIN_SHARE,
	BACK_SHARE,
	HIGH_KMH,
	JUDGE_FROM_KMH,
	STANDSTILL_KMH,
	WheelJudge,
	type WheelEvents
} from './wheelJudge';
import type { WheelTable } from './wheelTable';

/** A wheel under this share of the others has lost its signal; no bend goes so far. */
const LOST_SHARE = 0.55;
/** A reading so far above the others … */
const HIGH_SHARE = 1.25;
/** So many times its own noise a reading must be away. */
const NOISE_TIMES = 6;

/** What happened to one wheel, held against the others at each moment. */
export function wheelEvents(table: WheelTable, k: number, brakeSwitch: Float64Array | null): WheelEvents {
	const found: WheelEvents = {
		dropouts: [],
		latePickups: [],
		earlyLosses: [],
		spikes: [],
		slips: [],
		wild: [],
		goneForGood: null
	};
	const own = table.kmh[k] ?? new Float64Array();
	const should = table.expected[k] ?? new Float64Array();
	const invalid = table.invalid[k] ?? new Uint8Array();
	const noise = NOISE_TIMES * noiseOf(own, should);
	const look = new WheelJudge(table, own, should, invalid, brakeSwitch);
	let [lowFrom, highFrom] = [-1, -1];
	for (let i = 0; i < own.length; i++) {
		const value = own[i] ?? NaN;
		const expected = should[i] ?? NaN;
		const unknown = value !== value && invalid[i] !== 1;
		if (lowFrom < 0) {
			if (expected > JUDGE_FROM_KMH) {
				const low = invalid[i] === 1 || (value < LOST_SHARE * expected && expected - value > noise);
				if (low) lowFrom = i;
			}
		} else if (!unknown && !(invalid[i] === 1 && expected > STANDSTILL_KMH)) {
			if (!(expected > STANDSTILL_KMH) || value > BACK_SHARE * expected) {
				look.judgeLow(lowFrom, i - 1, found);
				lowFrom = -1;
			}
		}
		if (highFrom < 0) {
			if (value > HIGH_SHARE * expected + HIGH_KMH && value - expected > noise) highFrom = i;
		} else if (!(value > AGAIN_SHARE * expected + AGAIN_KMH)) {
			look.judgeHigh(highFrom, i - 1, found);
			highFrom = -1;
		}
	}
	if (lowFrom >= 0) look.judgeLow(lowFrom, own.length - 1, found);
	if (highFrom >= 0) look.judgeHigh(highFrom, own.length - 1, found);
	return found;
}

const NOISE_SAMPLES = 4_000;

/** Spread of a wheel about the others from one sample to the next, as a standard deviation: by the median, so that faults do not count. */
function noiseOf(own: Float64Array, should: Float64Array): number {
	const stride = Math.max(1, Math.floor(own.length / NOISE_SAMPLES));
	const steps = new Float64Array(Math.ceil(own.length / stride));
	let count = 0;
	for (let i = 1; i < own.length; i += stride) {
		const step = (own[i] ?? 0) - (should[i] ?? 0) - ((own[i - 1] ?? 0) - (should[i - 1] ?? 0));
		if (step === step && (should[i] ?? 0) > STANDSTILL_KMH) steps[count++] = Math.abs(step);
	}
	// A median of |differences| is 0.6745·√2 standard deviations of one reading.
	return count === 0 ? 0 : (steps.subarray(0, count).sort()[count >> 1] ?? 0) / (0.6745 * Math.SQRT2);
}
