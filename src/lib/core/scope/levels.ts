import { TELEGRAM_BITS } from '../electrical/sensorTelegrams';
import { quantileOfSorted } from './quantile';

export type SignalKind = 'active' | 'passive' | 'flat';

/** What the distribution of a channel's samples says of it, before any edge is looked for. */
export interface Levels {
	kind: SignalKind;
	/** The two levels of an active signal; of others, where nearly all samples lie. */
	lowV: number;
	highV: number;
	/** Effective noise from one sample to the next, in volts. */
	noiseV: number;
	/** A third level between the two, as sensors with direction have; null where there is none. */
	middleV: number | null;
	/** A level outside the two at which the line rests now and then; null where there is none. */
	outsideV: number | null;
}

/** So many samples, evenly spread, tell the distribution. */
const LOOKED_AT = 32_768;
const BINS = 160;
const LEAST_PASSES = 6;
const MOST_PASSES = 150;
/** More heaps than this are the steps of a wave or of its digits, not levels. */
const MOST_LEVELS = 5;
/** A swing below this no module counts. */
export const NOTHING_V = 0.03;
/** Noise alone spans 6.3 times its effective value between these two shares. */
const EDGE_SHARE = 0.0008;
const NOISE_SPAN = 8;
/** A sine spends a third of its time between a quarter and three quarters of its height, a square nearly none. */
const MOST_BETWEEN = 0.2;
/** A level holds at least this share of the samples, and the valley before it is half as deep. */
const LEVEL_SHARE = 0.0008;
const VALLEY = 0.5;

/**
 * Levels from the modes of the histogram, kind from how long the signal is between them. Looks at
 * about 33,000 samples spread evenly, however long the capture is.
 */
export function levelsOf(volts: Float32Array): Levels {
	const step = Math.max(1, Math.floor(volts.length / LOOKED_AT));
	const count = Math.ceil(volts.length / step);
	const seen = new Float32Array(count);
	// Not at even distances: those could keep step with the signal.
	for (let i = 0; i < count; i++)
		seen[i] = volts[Math.min(volts.length - 1, i * step + (scatter(i) % step))] ?? 0;
	const sorted = seen.slice().sort();
	const low = quantileOfSorted(sorted, EDGE_SHARE);
	const high = quantileOfSorted(sorted, 1 - EDGE_SHARE);
	const noiseV = Math.max(noiseOf(volts, step, high - low), stepOfDigits(sorted) / Math.sqrt(12));
	const none = { noiseV, middleV: null, outsideV: null };
	if (!(high - low > Math.max(NOTHING_V, NOISE_SPAN * noiseV))) {
		const middle = quantileOfSorted(sorted, 0.5);
		return { kind: 'flat', lowV: middle, highV: middle, ...none };
	}
	const modes = modesOf(seen, low, high, noiseV);
	const telegram = telegramLevels(volts, seen, modes);
	if (telegram) return { kind: 'active', ...telegram, noiseV, outsideV: null };
	const pair = busiestPair(seen, modes);
	if (pair) {
		const [lowV, highV] = pair;
		const swing = highV - lowV;
		if (
			swing > NOTHING_V &&
			shareNowhere(seen, modes, swing) < MOST_BETWEEN &&
			shareBetween(seen, lowV, highV) < MOST_BETWEEN
		) {
			const others = modes.filter((mode) => mode !== lowV && mode !== highV);
			const inside = others.find((mode) => mode > lowV + 0.2 * swing && mode < highV - 0.2 * swing);
			const outside = others.find((mode) => mode < lowV - 0.3 * swing || mode > highV + 0.3 * swing);
			return { kind: 'active', lowV, highV, noiseV, middleV: inside ?? null, outsideV: outside ?? null };
		}
	}
	return { kind: 'passive', lowV: low, highV: high, ...none };
}

/** A whole number that looks drawn, the same for the same place. */
const scatter = (i: number): number => (Math.imul(i + 1, 0x9e3779b1) >>> 8) & 0xffff;

/** Neighbours of a signal are alike, those of noise are not: correlation from one sample to the next. */
const ALIKE = 0.3;
/** A signal with few samples a tooth moves much between two of them: no more of its span than this is then taken for noise. */
const NOISE_OF_SPAN = 1 / 20;

/**
 * Effective noise from second differences, which a signal sampled often enough hardly moves: median / (0.6745·√6). Of one that is
 * sampled less often they are mostly the signal's own.
 */
function noiseOf(volts: Float32Array, step: number, spanV: number): number {
	const differences: number[] = [];
	const stride = Math.max(1, step * 8);
	let [mean, n] = [0, 0];
	for (let i = 1; i < volts.length - 1; i += stride) {
		differences.push(Math.abs((volts[i - 1] ?? 0) - 2 * (volts[i] ?? 0) + (volts[i + 1] ?? 0)));
		mean += volts[i] ?? 0;
		n += 1;
	}
	const noiseV =
		(quantileOfSorted(Float64Array.from(differences).sort(), 0.5) || 0) / (0.6745 * Math.sqrt(6));
	if (!(spanV > NOTHING_V) || spanV > NOISE_SPAN * noiseV) return noiseV;
	mean /= Math.max(1, n);
	let [together, alone] = [0, 0];
	for (let i = 1; i < volts.length - 1; i += stride) {
		const here = (volts[i] ?? 0) - mean;
		together += here * ((volts[i + 1] ?? 0) - mean);
		alone += here * here;
	}
	return together > ALIKE * alone ? Math.min(noiseV, NOISE_OF_SPAN * spanV) : noiseV;
}

/** More values than this are no digits of an instrument. */
const MOST_DIGITS = 600;

/** What one digit of a coarse instrument is, in volts; 0 where its digits cannot be seen. @param sorted samples, rising */
function stepOfDigits(sorted: Float32Array): number {
	const gaps: number[] = [];
	let digits = 1;
	for (let i = 1; i < sorted.length && digits <= MOST_DIGITS; i++) {
		const gap = (sorted[i] ?? 0) - (sorted[i - 1] ?? 0);
		if (!(gap > SAME_V)) continue;
		digits += 1;
		gaps.push(gap);
	}
	// A handful of values is two levels and their edges.
	if (digits > MOST_DIGITS || digits < LEAST_DIGITS) return 0;
	const digit = quantileOfSorted(Float64Array.from(gaps).sort(), 0.25);
	// Digits are even: every gap is one or a few of them.
	const even = gaps.filter((gap) => Math.abs(gap / digit - Math.round(gap / digit)) < 0.1);
	return even.length > MOSTLY * gaps.length ? digit : 0;
}
const LEAST_DIGITS = 6;
const MOSTLY = 0.95;
/** Values nearer than this are one. */
const SAME_V = 1e-6;

/** Middles of the heaps in which the samples lie, rising. */
function modesOf(seen: Float32Array, low: number, high: number, noiseV: number): number[] {
	const pad = 0.1 * (high - low);
	const [from, width] = [low - pad, (high - low + 2 * pad) / BINS];
	let bins = new Float64Array(BINS);
	for (const value of seen) {
		const bin = Math.floor((value - from) / width);
		if (bin >= 0 && bin < BINS) bins[bin] = (bins[bin] ?? 0) + 1;
	}
	// Each pass widens the heaps by half a bin squared; noise is smoothed by about its own width, so that its bumps are no heaps.
	const passes = Math.min(MOST_PASSES, Math.max(LEAST_PASSES, Math.ceil(2 * ((0.7 * noiseV) / width) ** 2)));
	for (let pass = 0; pass < passes; pass++) {
		bins = bins.map((value, i) => 0.25 * (bins[i - 1] ?? 0) + 0.5 * value + 0.25 * (bins[i + 1] ?? 0));
	}
	const peaks: number[] = [];
	for (let i = 0; i < BINS; i++) {
		const here = bins[i] ?? 0;
		if (here <= (bins[i - 1] ?? 0) || here < (bins[i + 1] ?? 0)) continue;
		const last = peaks.at(-1);
		let valley = Infinity;
		if (last !== undefined) for (let k = last; k < i; k++) valley = Math.min(valley, bins[k] ?? 0);
		const before = last === undefined ? 0 : (bins[last] ?? 0);
		if (last === undefined || valley < VALLEY * Math.min(before, here)) peaks.push(i);
		else if (here > before) peaks[peaks.length - 1] = i;
	}
	const middles = peaks.map((peak) => from + (peak + 0.5) * width);
	// Each sample belongs to the nearest heap; the heap's middle is the median of its own.
	const heaps: number[][] = middles.map(() => []);
	for (const value of seen) heaps[nearest(middles, value)]?.push(value);
	return heaps
		.filter((heap) => heap.length > LEVEL_SHARE * seen.length)
		.map((heap) => quantileOfSorted(Float64Array.from(heap).sort(), 0.5));
}

function nearest(list: readonly number[], value: number): number {
	let best = 0;
	for (let i = 1; i < list.length; i++)
		if (Math.abs((list[i] ?? 0) - value) < Math.abs((list[best] ?? 0) - value)) best = i;
	return best;
}

/** A current-pulse sensor rests low, its bits are a third of the way up to its tooth's pulse. */
const BITS_AT = 1 / 3;
const BITS_WITHIN = 0.06;
const RESTS_LOW = 0.35;
/** A tooth's pulse has at most its bits after it, each a rise of its own. */
const MOST_RISES = TELEGRAM_BITS + 3;

/** The three levels of a sensor that sends bits after each tooth's pulse; null where these are not they. */
function telegramLevels(
	volts: Float32Array,
	seen: Float32Array,
	modes: readonly number[]
): Pick<Levels, 'lowV' | 'middleV' | 'highV'> | null {
	const [lowV, middleV, highV] = modes;
	if (lowV === undefined || middleV === undefined || highV === undefined || modes.length !== 3) return null;
	if (Math.abs((middleV - lowV) / (highV - lowV) - BITS_AT) > BITS_WITHIN) return null;
	let resting = 0;
	for (const value of seen) if (nearest(modes, value) === 0) resting += 1;
	if (resting < RESTS_LOW * seen.length) return null;
	const teeth = risesThrough(volts, (middleV + highV) / 2);
	const rises = risesThrough(volts, (lowV + middleV) / 2);
	return teeth >= 2 && rises <= MOST_RISES * teeth ? { lowV, middleV, highV } : null;
}

function risesThrough(volts: Float32Array, level: number): number {
	let rises = 0;
	for (let i = 1; i < Math.min(volts.length, MOST_LOOKED_THROUGH); i++)
		if ((volts[i - 1] as number) < level && (volts[i] as number) >= level) rises += 1;
	return rises;
}
const MOST_LOOKED_THROUGH = 1 << 20;

/** The two levels between which the signal goes to and fro: a line that rests elsewhere for a while does so rarely. */
function busiestPair(seen: Float32Array, modes: readonly number[]): [number, number] | null {
	if (modes.length < 2 || modes.length > MOST_LEVELS) return null;
	const counts = modes.map(() => modes.map(() => 0));
	let last = nearest(modes, seen[0] ?? 0);
	for (const value of seen) {
		const now = nearest(modes, value);
		const row = counts[Math.min(now, last)];
		if (now !== last && row) row[Math.max(now, last)] = (row[Math.max(now, last)] ?? 0) + 1;
		last = now;
	}
	let best: [number, number] | null = null;
	let bestWeight = 0;
	for (let a = 0; a < modes.length; a++) {
		for (let b = a + 1; b < modes.length; b++) {
			const weight = (counts[a]?.[b] ?? 0) * ((modes[b] ?? 0) - (modes[a] ?? 0));
			if (weight > bestWeight) {
				bestWeight = weight;
				best = [modes[a] ?? 0, modes[b] ?? 0];
			}
		}
	}
	return best;
}

/** Of the samples within two levels, the share that is at neither. */
function shareBetween(seen: Float32Array, low: number, high: number): number {
	const swing = high - low;
	let [within, between] = [0, 0];
	for (const value of seen) {
		const at = (value - low) / swing;
		if (at < -0.5 || at > 1.5) continue;
		within += 1;
		if (at > 0.25 && at < 0.75) between += 1;
	}
	return within === 0 ? 1 : between / within;
}

/** Share of the samples that are at none of the heaps: a wave is on its way most of the time. */
function shareNowhere(seen: Float32Array, modes: readonly number[], swing: number): number {
	let away = 0;
	for (const value of seen) {
		const mode = modes[nearest(modes, value)] ?? 0;
		if (Math.abs(value - mode) > 0.25 * swing) away += 1;
	}
	return away / seen.length;
}
