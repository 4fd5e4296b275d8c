import { describe, expect, it } from 'vitest';
import { drawRing, INNER_RADIUS, USUAL_LENGTH } from './ringDrawing';

const ring = (teeth: number, missing: number[] = []) => ({
	teeth,
	turns: 5,
	height: Array.from({ length: teeth }, (_, i): number => (missing.includes(i) ? 0 : 1)),
	seen: Array.from({ length: teeth }, (_, i): number => (missing.includes(i) ? 0 : 1))
});
const lengthOf = ({ from, to }: { from: { x: number; y: number }; to: { x: number; y: number } }) =>
	Math.hypot(to.x - from.x, to.y - from.y);

describe('a ring, tooth by tooth', () => {
	it('a quarter of a turn is a quarter of the circle, clockwise from the top', () => {
		const { teeth, says, places } = drawRing(ring(48), []);
		expect(teeth[0]?.from).toEqual({ x: expect.closeTo(200, 6), y: expect.closeTo(200 - INNER_RADIUS, 6) });
		expect(teeth[12]?.from).toEqual({ x: expect.closeTo(200 + INNER_RADIUS, 6), y: expect.closeTo(200, 6) });
		expect(places).toEqual([]);
		expect(says).toBe('Ring of 48 teeth, every one seen');
	});

	it('a pulse of half the height is a line of half the length', () => {
		const weak = ring(48);
		weak.height[5] = 0.5;
		const { teeth } = drawRing(weak, []);
		expect(lengthOf(teeth[4]!)).toBeCloseTo(USUAL_LENGTH, 6);
		expect(lengthOf(teeth[5]!)).toBeCloseTo(USUAL_LENGTH / 2, 6);
	});

	it('neighbours are one place, also over the top', () => {
		const words = (missing: number[], marked: number[] = []) =>
			drawRing(ring(36, missing), marked).places.map((place) => place.words);
		expect(words([9])).toEqual(['90°']);
		expect(words([9], [10, 11])).toEqual(['90–110°']);
		expect(words([35, 0, 1])).toEqual(['350–10°']);
		expect(words([3, 20])).toEqual(['30°', '200°']);
	});

	it('a tooth that is missing is not drawn, one that something was found at is', () => {
		const { teeth } = drawRing(ring(36, [9]), [12]);
		expect(teeth.filter(({ there }) => !there).map(({ tooth }) => tooth)).toEqual([9]);
		expect(teeth.filter(({ bad }) => bad).map(({ tooth }) => tooth)).toEqual([9, 12]);
	});
});
