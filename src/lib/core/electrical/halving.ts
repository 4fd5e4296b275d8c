/** A place along a wire, in order from the end that is known to be good. */
export interface WirePoint {
	id: string;
	/** What has to be laid open to get there; places of one plug share it. */
	behind: string;
	accessMin: number;
	/** Whether a meter can be put on it; the far end always can. */
	probed: boolean;
}

/** How likely the fault lies between a point and the next, before anything is measured; need not add up to 1. */
export type StretchWeights = readonly number[];

export type PointReading = 'good' | 'bad';

export interface HalvingStep {
	point: string;
	/** Minutes for this reading: access that is not yet paid, and the reading itself. */
	minutes: number;
	/** Expected minutes from now to the end, if this is measured next. */
	expectedMin: number;
}

export interface Halving {
	/** The fault lies between these two neighbours of the list: the last good point and the first bad one. */
	between: [string, string];
	/** Whether they are next to each other: found. */
	found: boolean;
	/** Best first. */
	next: HalvingStep[];
	/** Readings that cannot both be right; null where there are none. */
	contradiction: { good: string; bad: string } | null;
	/** Chance of each stretch now. */
	chances: number[];
}

/** Minutes for a reading at a place that is already open. */
export const READING_MIN = 1;

/**
 * Where a wire is at fault, by measuring at the point that makes the whole search shortest.
 * Upstream of the fault every point reads good, downstream bad, so readings close an interval; the expected minutes of each
 * interval are worked out from its parts: E(i,j) = min over k of c(k) + P(fault in i…k)·E(i,k) + P(fault in k…j)·E(k,j).
 * Exact, because what is already open inside an interval is only what its ends or the beginning have opened.
 *
 * @param points first = the end that is good, last = the end that is bad
 * @param exposed what is already open
 */
export function halve(
	points: readonly WirePoint[],
	weights: StretchWeights,
	readings: Readonly<Record<string, PointReading>>,
	exposed: readonly string[] = []
): Halving {
	if (points.length < 2 || weights.length !== points.length - 1)
		throw new RangeError('a wire has two points at least, and one weight between each two');
	const at = (i: number): PointReading | undefined =>
		i === 0 ? 'good' : i === points.length - 1 ? 'bad' : readings[points[i]?.id ?? ''];
	let firstBad = points.length - 1;
	for (let i = points.length - 2; i > 0; i--) if (at(i) === 'bad') firstBad = i;
	let lastGood = 0;
	let crossed: number | null = null;
	for (let i = 1; i < points.length - 1; i++) {
		if (at(i) !== 'good') continue;
		if (i > firstBad) crossed ??= i;
		else lastGood = i;
	}
	const id = (i: number) => points[i]?.id ?? '';
	const open = new Set(exposed);
	for (const [i, point] of points.entries()) if (readings[id(i)] !== undefined) open.add(point.behind);
	const plan = planner(points, weights, open);
	const total = sum(weights, lastGood, firstBad);
	const chances = weights.map((weight, i) => (i >= lastGood && i < firstBad ? share(weight, total) : 0));
	return {
		between: [id(lastGood), id(firstBad)],
		found: firstBad - lastGood === 1 || plan.candidates(lastGood, firstBad).length === 0,
		next: plan
			.candidates(lastGood, firstBad)
			.map((k) => ({ point: id(k), ...plan.cost(lastGood, firstBad, k) }))
			.sort((a, b) => a.expectedMin - b.expectedMin || a.minutes - b.minutes),
		contradiction: crossed === null ? null : { good: id(crossed), bad: id(firstBad) },
		chances
	};
}

const share = (part: number, whole: number) => (whole > 0 ? part / whole : 0);
const sum = (weights: StretchWeights, from: number, to: number) =>
	weights.slice(from, to).reduce((all, weight) => all + weight, 0);

function planner(points: readonly WirePoint[], weights: StretchWeights, open: ReadonlySet<string>) {
	const known = new Map<number, number>();
	const candidates = (i: number, j: number) => {
		const inside: number[] = [];
		for (let k = i + 1; k < j; k++) if (points[k]?.probed) inside.push(k);
		return inside;
	};
	const cost = (i: number, j: number, k: number) => {
		const point = points[k];
		const free =
			!point ||
			open.has(point.behind) ||
			[i, j].some((end) => isPaid(end) && points[end]?.behind === point.behind);
		const minutes = READING_MIN + (free ? 0 : (point?.accessMin ?? 0));
		const total = sum(weights, i, j);
		const before = share(sum(weights, i, k), total);
		return { minutes, expectedMin: minutes + before * expected(i, k) + (1 - before) * expected(k, j) };
	};
	// The two ends of the wire were never laid open by a reading.
	const isPaid = (end: number) => end > 0 && end < points.length - 1;
	const expected = (i: number, j: number): number => {
		const key = i * points.length + j;
		const before = known.get(key);
		if (before !== undefined) return before;
		const inside = candidates(i, j);
		const least = inside.length === 0 ? 0 : Math.min(...inside.map((k) => cost(i, j, k).expectedMin));
		known.set(key, least);
		return least;
	};
	return { candidates, cost };
}
