import type { RingMap } from './ringMap';

/** What of a ring is drawn: how high each pulse stands, and how often it was seen. */
export type DrawnRing = Pick<RingMap, 'teeth' | 'turns' | 'height' | 'seen'>;

interface Point {
	x: number;
	y: number;
}
export interface RingTooth {
	tooth: number;
	/** Seen in half of the turns or more. */
	there: boolean;
	bad: boolean;
	from: Point;
	to: Point;
}
/** Neighbours that are bad: one place on the ring. `from` is below zero where it goes over the top. */
export interface RingPlace {
	from: number;
	to: number;
	/** "120°" or "120–150°". */
	words: string;
	/** Middle of the place on the ring, and its direction in degrees, clockwise from the right. */
	mark: Point;
	turnDeg: number;
	/** Where its words stand. */
	label: Point;
	/** SVG path along it; empty for a single tooth. */
	arc: string;
}
export interface RingDrawing {
	teeth: RingTooth[];
	places: RingPlace[];
	/** Width of one line. */
	width: number;
	/** In one sentence. */
	says: string;
}

/** Everything lies in a square of this size around its middle. */
export const RING_SIZE = 400;
const CENTRE = RING_SIZE / 2;
export const INNER_RADIUS = 96;
/** Length of a pulse of the usual height. */
export const USUAL_LENGTH = 52;
const MOST_HEIGHT = 1.8;
const LEAST_HEIGHT = 0.08;
const SEEN_ENOUGH = 0.5;
const LABEL_BEYOND = 36;
const ARC_BEYOND = 4;

/**
 * A ring tooth by tooth, clockwise from the tooth that the capture saw first (top). Each line is as long as its pulse is
 * high against the usual one.
 *
 * @param marked teeth that something was found at
 */
export function drawRing(ring: DrawnRing, marked: readonly number[]): RingDrawing {
	const angleOf = (tooth: number) => (2 * Math.PI * tooth) / ring.teeth - Math.PI / 2;
	const point = (tooth: number, radius: number): Point => ({
		x: CENTRE + radius * Math.cos(angleOf(tooth)),
		y: CENTRE + radius * Math.sin(angleOf(tooth))
	});
	const teeth = Array.from({ length: ring.teeth }, (_, tooth): RingTooth => {
		const height = Math.min(MOST_HEIGHT, Math.max(LEAST_HEIGHT, ring.height[tooth] ?? 0));
		const there = (ring.seen[tooth] ?? 0) >= SEEN_ENOUGH;
		return {
			tooth,
			there,
			bad: marked.includes(tooth) || !there,
			from: point(tooth, INNER_RADIUS),
			to: point(tooth, INNER_RADIUS + USUAL_LENGTH * height)
		};
	});
	const degrees = (tooth: number) => Math.round((360 * ((tooth + ring.teeth) % ring.teeth)) / ring.teeth);
	const places = badRuns(teeth, ring.teeth).map(({ from, to }): RingPlace => {
		const middle = (from + to) / 2;
		const [a, b] = [point(from - 0.4, INNER_RADIUS + ARC_BEYOND), point(to + 0.4, INNER_RADIUS + ARC_BEYOND)];
		const radius = INNER_RADIUS + ARC_BEYOND;
		const long = to - from > ring.teeth / 2 ? 1 : 0;
		return {
			from,
			to,
			words: from === to ? `${degrees(from)}°` : `${degrees(from)}–${degrees(to)}°`,
			mark: point(middle, INNER_RADIUS + USUAL_LENGTH / 2),
			turnDeg: (angleOf(middle) * 180) / Math.PI,
			label: point(middle, INNER_RADIUS + USUAL_LENGTH + LABEL_BEYOND),
			arc: to > from ? `M${a.x} ${a.y} A${radius} ${radius} 0 ${long} 1 ${b.x} ${b.y}` : ''
		};
	});
	return {
		teeth,
		places,
		width: Math.max(2.5, Math.min(9, (2 * Math.PI * INNER_RADIUS) / ring.teeth - 3.5)),
		says:
			places.length === 0
				? `Ring of ${ring.teeth} teeth, every one seen`
				: `Ring of ${ring.teeth} teeth; look at ${places.map(({ words }) => words).join(', ')}`
	};
}

function badRuns(teeth: readonly RingTooth[], count: number): { from: number; to: number }[] {
	const runs: { from: number; to: number }[] = [];
	for (const { tooth, bad } of teeth) {
		if (!bad) continue;
		const last = runs.at(-1);
		if (last && tooth === last.to + 1) last.to = tooth;
		else runs.push({ from: tooth, to: tooth });
	}
	const [first, last] = [runs[0], runs.at(-1)];
	// A run may go on over the top.
	if (first && last && runs.length > 1 && first.from === 0 && last.to === count - 1) {
		first.from = last.from - count;
		runs.pop();
	}
	return runs;
}
