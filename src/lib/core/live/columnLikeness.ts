import { medianOf } from './medianOf';

/** How columns of numbers behave, whatever they are called. */

/** Columns of a file as numbers, row by row; NaN where there is none. */
export type NumberColumns = readonly Float64Array[];
const NO_NUMBERS = new Float64Array();

/** A clock rises at nearly every row. */
const RISES_SHARE = 0.9;
/** Steps of a clock are alike: so many lie within half and twice the usual one. */
const EVEN_SHARE = 0.8;

/** A row that is damaged, or stands in the wrong place, makes no other column of it. */
const MOST_SLIPS = 0.02;

/** Median step of a column that rises evenly, as a clock does; null of one that does not. */
export function clockStep(column: Float64Array): number | null {
	const steps = column.slice(1).map((value, i) => value - (column[i] ?? NaN));
	const rising = steps.filter((step) => step > 0);
	const usual = medianOf(rising);
	const slips = steps.filter((step) => !(step >= 0)).length;
	const even = rising.filter((step) => step >= usual / 2 && step <= usual * 2).length;
	const isClock =
		slips <= MOST_SLIPS * steps.length &&
		rising.length >= RISES_SHARE * steps.length &&
		even >= EVEN_SHARE * steps.length;
	return isClock && usual > 0 ? usual : null;
}

/** Wheels of one vehicle read the same within this share and so much more, apart from bends and slip. */
const ALIKE_SHARE = 0.08;
const ALIKE_SLACK = 0.8;
/** So many of the moments at which both move must read alike. */
const ALIKE_MOMENTS = 0.7;
const MOVING = 3;
const FEWEST_MOVING = 20;
/** No speed in any unit is higher. */
const FASTEST = 700;

/** Whether all of a column could be speeds: none below zero, none beyond any vehicle but for what a bus says for "none". */
export function couldBeSpeed(column: Float64Array): boolean {
	let [numbers, beyond] = [0, 0];
	for (const value of column) {
		if (Number.isNaN(value)) continue;
		numbers += 1;
		if (value < 0 || value > FASTEST) beyond += 1;
	}
	return numbers > 0 && beyond < 0.05 * numbers;
}

/** Whether two columns rise and fall together and read the same. */
export function moveAlike(a: Float64Array, b: Float64Array): boolean {
	let [moving, alike] = [0, 0];
	for (let i = 0; i < a.length; i++) {
		const [x, y] = [a[i] ?? NaN, b[i] ?? NaN];
		if (!(Math.max(x, y) > MOVING)) continue;
		moving += 1;
		if (Math.abs(x - y) <= ALIKE_SHARE * Math.max(x, y) + ALIKE_SLACK) alike += 1;
	}
	return moving >= FEWEST_MOVING && alike >= ALIKE_MOMENTS * moving && changes(a) && changes(b);
}

/** A value that stands still moves like nothing. */
function changes(column: Float64Array): boolean {
	let [least, most] = [Infinity, -Infinity];
	for (const value of column) {
		if (value < least) least = value;
		if (value > most) most = value;
	}
	return most - least > MOVING;
}

/** @param share 0 to 1 */
function quantileOf(column: Float64Array, share: number): number {
	const sorted = column.filter((value) => !Number.isNaN(value)).sort();
	return sorted[Math.floor(share * (sorted.length - 1))] ?? NaN;
}

/** The largest set of columns of which each moves like another of the set. @param among their places, in the order of the file */
export function largestAlike(columns: NumberColumns, among: readonly number[]): number[] {
	const left = new Set(among);
	let best: number[] = [];
	for (const start of among) {
		if (!left.delete(start)) continue;
		const group = [start];
		for (const one of group)
			for (const other of [...left])
				if (moveAlike(columns[one] ?? NO_NUMBERS, columns[other] ?? NO_NUMBERS)) {
					left.delete(other);
					group.push(other);
				}
		if (group.length > best.length) best = group;
	}
	return best.length > 1 ? best.sort((a, b) => a - b) : [];
}

/** Of columns that move alike, the one that runs most in the middle of all: the vehicle's own speed beside its wheels. */
export function middleOne(columns: NumberColumns, group: readonly number[]): number {
	const off = group.map((at) => {
		const distances: number[] = [];
		const own = columns[at] ?? NO_NUMBERS;
		for (let i = 0; i < own.length; i++) {
			const others = group.filter((one) => one !== at).map((one) => columns[one]?.[i] ?? NaN);
			const mean = others.reduce((sum, value) => sum + value, 0) / others.length;
			const value = own[i] ?? NaN;
			if (mean > MOVING && value > MOVING) distances.push(((value - mean) / mean) ** 2);
		}
		return distances.reduce((sum, distance) => sum + distance, 0) / Math.max(1, distances.length);
	});
	return group[off.indexOf(Math.min(...off))] ?? group[0] ?? 0;
}

/** In a bend the two of an axle differ by this share of the speed. */
const BEND_SHARE = 0.02;
const BEND_FROM = 8;
const FEWEST_BENDS = 20;
/** Steered at least this share of the sharpest but for a few. */
const BEND_OF_SHARPEST = 0.4;
const SHARPEST = 0.97;
/** Slip needs a driver who brakes or speeds up: within so many rows the speed hardly changes. */
const STEADY_ROWS = 5;
const STEADY_SHARE = 0.04;
/** Two of one side are never so far apart but by slip. */
const SLIPS = 0.08;
/** Correlation from which front and rear are told. */
const GROWS = 0.25;
/** So many bends must say the same. */
const SURE = 0.8;

/**
 * The four wheels of a car by their bends: two that are slow and fast together are one side, and of a side the front wheel runs the
 * longer way. Which side is the left needs the steering (positive to the left, ISO 8855): in a bend to the left the left is slow.
 *
 * @param four their columns
 * @param turning steering angle or yaw rate
 * @returns front left, front right, rear left, rear right; null where the bends do not tell
 */
export function carByBends(
	columns: NumberColumns,
	four: readonly number[],
	turning: Float64Array
): [number, number, number, number] | null {
	const [first, ...others] = four;
	if (first === undefined || others.length !== 3) return null;
	const of = (at: number, i: number) => columns[at]?.[i] ?? NaN;
	const sharp = BEND_OF_SHARPEST * quantileOf(turning.map(Math.abs), SHARPEST);
	const meanAt = (i: number) => four.reduce((sum, at) => sum + of(at, i), 0) / 4;
	const isSteady = (i: number) =>
		Math.abs(meanAt(Math.min(i + STEADY_ROWS, turning.length - 1)) - meanAt(Math.max(0, i - STEADY_ROWS))) <
		STEADY_SHARE * meanAt(i);
	const bends: number[] = [];
	for (let i = 0; i < turning.length; i++) {
		if (!isSteady(i)) continue;
		const values = four.map((at) => of(at, i));
		const mean = meanAt(i);
		const isBend = mean > BEND_FROM && Math.max(...values) - Math.min(...values) > BEND_SHARE * mean;
		// Honest slip parts wheels too, but nobody steers for it.
		if (isBend && Math.abs(turning[i] ?? 0) > sharp) bends.push(i);
	}
	if (bends.length < FEWEST_BENDS) return null;
	/** How far two are usually apart in bends: honest slip, which is seldom, does not count. */
	const apart = (a: number, b: number) => medianOf(bends.map((i) => Math.abs(of(a, i) - of(b, i))));
	const mate = others.reduce((best, one) => (apart(first, one) < apart(first, best) ? one : best));
	const sides = [[first, mate], others.filter((one) => one !== mate)];
	const share = (says: (i: number) => boolean) => bends.filter(says).length / bends.length;
	const sideOf = (side: readonly number[], i: number) => side.reduce((sum, at) => sum + of(at, i), 0);
	const [one = [], other = []] = sides;
	const slowInside = share((i) => sideOf(one, i) < sideOf(other, i) === (turning[i] ?? 0) > 0);
	if (slowInside < SURE && slowInside > 1 - SURE) return null;
	const [left, right] = slowInside >= SURE ? [one, other] : [other, one];
	// The front runs longer by the square of the bend, whatever slip does meanwhile.
	const ordered = [left, right].map((side) => {
		const [a = -1, b = -1] = side;
		const pairs: [number, number][] = [];
		for (let i = 0; i < turning.length; i++) {
			const [x, y] = [of(a, i), of(b, i)];
			if (x > BEND_FROM && y > BEND_FROM && isSteady(i))
				pairs.push([(turning[i] ?? 0) ** 2, (2 * (x - y)) / (x + y)]);
		}
		const grows = correlation(pairs.filter(([, apart]) => Math.abs(apart) < SLIPS));
		return Math.abs(grows) < GROWS ? null : grows > 0 ? [a, b] : [b, a];
	});
	const [l, r] = ordered;
	if (!l || !r) return null;
	return [l[0] ?? -1, r[0] ?? -1, l[1] ?? -1, r[1] ?? -1];
}

/** How surely a column swings with the difference of left and right, from −1 to 1: as steering and yaw do. */
export function swingsWithBends(column: Float64Array, left: Float64Array, right: Float64Array): number {
	const pairs: [number, number][] = [];
	for (let i = 0; i < column.length; i++) {
		const [l, r, value] = [left[i] ?? NaN, right[i] ?? NaN, column[i] ?? NaN];
		const mean = (l + r) / 2;
		if (mean > BEND_FROM && !Number.isNaN(value)) pairs.push([(r - l) / mean, value]);
	}
	return pairs.length < FEWEST_BENDS ? 0 : correlation(pairs);
}

/** Pearson's coefficient; 0 where one of the two stands still. */
export function correlation(pairs: readonly (readonly [number, number])[]): number {
	const n = pairs.length;
	const [sumX, sumY] = pairs.reduce(([x, y], pair) => [x + pair[0], y + pair[1]], [0, 0]);
	let [xx, yy, xy] = [0, 0, 0];
	for (const [x, y] of pairs) {
		xx += (x - sumX / n) ** 2;
		yy += (y - sumY / n) ** 2;
		xy += (x - sumX / n) * (y - sumY / n);
	}
	return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : 0;
}
