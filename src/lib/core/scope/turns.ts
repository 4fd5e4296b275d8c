import { medianOf } from '../live/medianOf';
import type { Pause, Rhythm } from './periods';

/** Rings have between these many teeth or pole pairs. */
export const FEWEST_TEETH = 12;
export const MOST_TEETH = 150;
/** Of the places where a pause should come again, the share at which it does. */
const REPEATS = 0.8;
/** A longer pause may be counted one tooth wrong. */
const SURE_PERIODS = 6;

/**
 * Teeth per revolution from pauses that come again: the smallest number after which each of them does. Null where they do
 * not, or where the capture holds no two of them.
 */
export function teethFromPauses({ tooth }: Rhythm, pauses: readonly Pause[]): number | null {
	const places = pauses.map(({ after }) => tooth[after] ?? 0);
	if (places.length < 2) return null;
	for (let teeth = FEWEST_TEETH; teeth <= MOST_TEETH; teeth++) {
		if (!(repeatShare(places, pauses, tooth, teeth, true) >= REPEATS)) continue;
		// A long pause may be counted a tooth short: of the next numbers the one that fits exactly.
		const exact = (n: number) => repeatShare(places, pauses, tooth, n, false) || 0;
		return [teeth, teeth + 1, teeth + 2].reduce((best, n) => (exact(n) > exact(best) ? n : best));
	}
	return null;
}

/** A gap of the ring is as long each time. */
const alike = (a?: Pause, b?: Pause) =>
	!!a && !!b && Math.abs(a.periods - b.periods) < 0.35 + 0.08 * Math.max(a.periods, b.periods);

/** Of the places a turn before and after each pause, how many hold one; NaN where the capture holds no whole turn. */
function repeatShare(
	places: readonly number[],
	pauses: readonly Pause[],
	tooth: Int32Array,
	teeth: number,
	loosely: boolean
): number {
	const held = new Map(places.map((place, i) => [place, i]));
	const last = tooth.at(-1) ?? 0;
	let [asked, found] = [0, 0];
	for (const [i, place] of places.entries()) {
		const loose = loosely && (pauses[i]?.periods ?? 0) > SURE_PERIODS ? 1 : 0;
		for (const wanted of [place - teeth, place + teeth]) {
			// At the ends of the capture a pause cannot be told.
			if (wanted < 4 || wanted > last - 4 - (pauses[i]?.periods ?? 0)) continue;
			asked += 1;
			for (let d = -loose; d <= loose; d++) {
				const other = held.get(wanted + d);
				if (other !== undefined && alike(pauses[i], pauses[other])) {
					found += 1;
					break;
				}
			}
		}
	}
	return asked === 0 ? NaN : found / asked;
}

/** Which pauses come again each turn. */
export function returningPauses({ tooth }: Rhythm, pauses: readonly Pause[], teeth: number): boolean[] {
	const places = pauses.map(({ after }) => tooth[after] ?? 0);
	return places.map((place, i) => {
		const loose = (pauses[i]?.periods ?? 0) > SURE_PERIODS ? 1 : 0;
		return places.some(
			(other, k) =>
				alike(pauses[i], pauses[k]) && [-1, 1].some((way) => Math.abs(other - place - way * teeth) <= loose)
		);
	});
}

/** So many pulses are enough to find a pattern in. */
const MOST_PULSES = 6_000;
const LEAST_TURNS = 2;
const LEAST_LIKENESS = 0.5;

/**
 * Length of a pattern that repeats, in teeth, by autocorrelation of a value per tooth, refined by what folding at each
 * length explains. Null where nothing repeats.
 *
 * @param values one per tooth in order, above 0; NaN where there is none
 */
export function patternLength(values: Float64Array, leastTurns = LEAST_TURNS): number | null {
	const raw = withoutOutliers(values.subarray(0, Math.min(values.length, MOST_PULSES)));
	const used = centred(raw);
	const longest = Math.min(MOST_TEETH + 4, Math.floor(used.length / leastTurns));
	if (longest < FEWEST_TEETH + 2) return null;
	const likeness = new Float64Array(longest + 1);
	for (let lag = Math.floor(FEWEST_TEETH / 2); lag <= longest; lag++) likeness[lag] = likenessAt(used, lag);
	let best = 0;
	// The likeness falls from lag 0; what counts is where it has come back up.
	let dipped = false;
	for (let lag = Math.floor(FEWEST_TEETH / 2); lag <= longest; lag++) {
		const here = likeness[lag] ?? 0;
		if (here < 0.3) dipped = true;
		if (dipped && here > (likeness[best] ?? 0) && lag >= FEWEST_TEETH) best = lag;
	}
	if (!((likeness[best] ?? 0) >= LEAST_LIKENESS)) return null;
	// The pattern of one turn repeats after two as well: the first lag that is nearly as good.
	for (let lag = FEWEST_TEETH; lag < best; lag++) {
		const here = likeness[lag] ?? 0;
		const peak = here >= (likeness[lag - 1] ?? 0) && here >= (likeness[lag + 1] ?? 0);
		if (peak && here > 0.85 * (likeness[best] ?? 0) && wasBelow(likeness, lag)) {
			best = lag;
			break;
		}
	}
	const teeth = sharpest(used, raw, best);
	return teeth <= used.length / leastTurns ? teeth : null;
}

/** What is far from the rest is no pattern: left out. */
function withoutOutliers(values: Float64Array): Float64Array {
	const middle = medianOf(values.filter((value) => !Number.isNaN(value)));
	const spread = medianOf(
		values.filter((value) => !Number.isNaN(value)).map((value) => Math.abs(value - middle))
	);
	return values.map((value) => (Math.abs(value - middle) <= FAR_SPREADS * spread ? value : NaN));
}
const FAR_SPREADS = 8;

/** The length near a first guess that explains most: as one wave where the pattern is one, else tooth by tooth. */
function sharpest(values: Float64Array, raw: Float64Array, guess: number): number {
	let [teeth, most] = [guess, -Infinity];
	for (let n = Math.max(FEWEST_TEETH, guess - 4); n <= Math.min(MOST_TEETH, guess + 4); n++) {
		const share = explainedByFolding(values, n);
		if (share > most) [teeth, most] = [n, share];
	}
	// Heights change with speed by a factor, so their logarithms are fitted.
	const logs = raw.map((value) => (value > 0 ? Math.log(value) : NaN));
	let [length, least] = [guess, Infinity];
	for (let n = Math.max(FEWEST_TEETH, guess - 6); n <= guess + 6; n += 0.125) {
		const left = leftByWave(logs, n);
		if (left < least) [length, least] = [n, left];
	}
	return 1 - least > WAVE_SHARE * most ? Math.round(length) : teeth;
}
/** A pattern that one wave explains this far is one. */
const WAVE_SHARE = 0.8;

/** Share of the variance that is left after fitting 1, t, t², cos and sin of a length, by least squares. */
function leftByWave(values: Float64Array, length: number): number {
	const size = 5;
	const normal = Array.from({ length: size }, () => new Float64Array(size + 1));
	let [sum, square, n] = [0, 0, 0];
	const row = new Float64Array(size);
	for (const [i, value] of values.entries()) {
		if (Number.isNaN(value)) continue;
		const t = (2 * i) / values.length - 1;
		const angle = (2 * Math.PI * i) / length;
		row.set([1, t, t * t, Math.cos(angle), Math.sin(angle)]);
		for (let r = 0; r < size; r++) {
			const into = normal[r];
			if (!into) continue;
			for (let c = 0; c < size; c++) into[c] = (into[c] ?? 0) + (row[r] ?? 0) * (row[c] ?? 0);
			into[size] = (into[size] ?? 0) + (row[r] ?? 0) * value;
		}
		sum += value;
		square += value * value;
		n += 1;
	}
	const total = square - (sum * sum) / Math.max(1, n);
	const right = normal.map((line) => line[size] ?? 0);
	const solved = solve(normal);
	const explained = right.reduce((all, value, r) => all + value * (solved[r] ?? 0), 0);
	return total > 0 ? (square - explained) / total : 1;
}

/** Gaussian elimination with pivoting of an augmented square system, in place. */
function solve(rows: Float64Array[]): number[] {
	const size = rows.length;
	for (let c = 0; c < size; c++) {
		let pivot = c;
		for (let r = c + 1; r < size; r++)
			if (Math.abs(rows[r]?.[c] ?? 0) > Math.abs(rows[pivot]?.[c] ?? 0)) pivot = r;
		const [top, other] = [rows[pivot], rows[c]];
		if (!top || !other) continue;
		rows[c] = top;
		rows[pivot] = other;
		const lead = top[c] ?? 0;
		if (lead === 0) continue;
		for (let r = 0; r < size; r++) {
			const line = rows[r];
			if (r === c || !line) continue;
			const by = (line[c] ?? 0) / lead;
			if (by !== 0) for (let k = c; k <= size; k++) line[k] = (line[k] ?? 0) - by * (top[k] ?? 0);
		}
	}
	return rows.map((line, r) => ((line[r] ?? 0) === 0 ? 0 : (line[size] ?? 0) / (line[r] ?? 1)));
}

const wasBelow = (likeness: Float64Array, lag: number): boolean =>
	likeness.subarray(Math.floor(FEWEST_TEETH / 2), lag).some((value) => value < 0.3);

function likenessAt(values: Float64Array, lag: number): number {
	let [product, a2, b2] = [0, 0, 0];
	for (let i = 0; i + lag < values.length; i++) {
		const [a, b] = [values[i] ?? NaN, values[i + lag] ?? NaN];
		if (Number.isNaN(a) || Number.isNaN(b)) continue;
		product += a * b;
		a2 += a * a;
		b2 += b * b;
	}
	return a2 > 0 && b2 > 0 ? product / Math.sqrt(a2 * b2) : 0;
}

/** Share of the variance that the mean of each place of the fold explains, less what chance would explain. */
export function explainedByFolding(values: Float64Array, teeth: number): number {
	const sums = new Float64Array(teeth);
	const counts = new Int32Array(teeth);
	let [all, square, n] = [0, 0, 0];
	for (const [i, value] of values.entries()) {
		if (Number.isNaN(value)) continue;
		const at = i % teeth;
		sums[at] = (sums[at] ?? 0) + value;
		counts[at] = (counts[at] ?? 0) + 1;
		all += value;
		square += value * value;
		n += 1;
	}
	const total = square - (all * all) / Math.max(1, n);
	if (!(total > 0) || n <= teeth) return 0;
	let explained = -(all * all) / n;
	for (let k = 0; k < teeth; k++)
		if ((counts[k] ?? 0) > 0) explained += (sums[k] ?? 0) ** 2 / (counts[k] ?? 1);
	const share = explained / total;
	return 1 - ((1 - share) * (n - 1)) / (n - teeth);
}

/** Takes slow change out: each value against the mean of the hundreds around it. */
function centred(list: Float64Array): Float64Array {
	const half = 150;
	const out = new Float64Array(list.length).fill(NaN);
	let [sum, n, from, to] = [0, 0, 0, 0];
	for (let i = 0; i < list.length; i++) {
		for (; to < list.length && to <= i + half; to++) {
			const value = list[to] ?? NaN;
			if (Number.isNaN(value)) continue;
			sum += value;
			n += 1;
		}
		for (; from < i - half; from++) {
			const value = list[from] ?? NaN;
			if (Number.isNaN(value)) continue;
			sum -= value;
			n -= 1;
		}
		if (n > 0) out[i] = (list[i] ?? NaN) / (sum / n) - 1;
	}
	return out;
}
