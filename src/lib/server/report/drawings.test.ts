import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ringSvg, traceDrawing } from './drawings';

const TRACE = {
	id: 'x',
	channel: 'rear_left',
	fromS: 10,
	toS: 20,
	side: 'as it came' as const,
	words: ''
};
const timeS = Float64Array.from({ length: 601 }, (_, i) => i / 20);
const samples = (bad: (t: number) => number) => ({
	timeS,
	channels: new Map([
		['vehicle', timeS.map(() => 50)],
		['front_left', timeS.map(() => 40)],
		['rear_left', timeS.map(bad)]
	])
});
const pathsOf = (svg: string) =>
	[...svg.matchAll(/<path d="(M[^"]*)"[^>]*stroke-width="([\d.]+)"/g)].slice(1);
const points = (d: string) =>
	[...d.matchAll(/([ML])([-\d.]+) ([-\d.]+)/g)].map(([, pen, x, y]) => [pen, Number(x), Number(y)]);

describe('pictures on paper', () => {
	it('a wheel that falls to zero is a thick line down to the ground; the others stay thin above it', () => {
		const drawing = traceDrawing(
			TRACE,
			samples((t) => (t >= 14 && t < 15 ? 0 : 40))
		);
		const [thin, thick] = pathsOf(drawing?.svg ?? '');
		expect([thin?.[2], thick?.[2]]).toEqual(['0.8', '1.8']);
		const depth = (path: RegExpMatchArray | undefined) =>
			Math.max(...points(path?.[1] ?? '').map(([, , y]) => y as number));
		expect(depth(thick)).toBeCloseTo(94, 0);
		expect(depth(thin)).toBeLessThan(10);
		expect(drawing?.words).toBe('Rear left (thick) and the other wheels, 0 to 40 km/h, second 10.0 to 20.0.');
	});

	it('a word for "no speed" is a hole: the pen is lifted, and the height is that of the speeds', () => {
		const drawing = traceDrawing(
			TRACE,
			samples((t) => (t >= 14 && t < 15 ? 655.35 : 40))
		);
		const thick = points(pathsOf(drawing?.svg ?? '')[1]?.[1] ?? '');
		expect(thick.filter(([pen]) => pen === 'M')).toHaveLength(2);
		expect(drawing?.words).toContain('0 to 40 km/h');
	});

	it('whatever was read, no number of the picture is none, and all of it lies inside', () => {
		fc.assert(
			fc.property(fc.array(fc.double(), { minLength: 601, maxLength: 601 }), (values) => {
				const { svg } = traceDrawing(
					TRACE,
					samples((t) => values[Math.round(t * 20)] ?? 0)
				) ?? { svg: '' };
				expect(svg).not.toMatch(/NaN|Infinity/);
				for (const [, d] of pathsOf(svg))
					for (const [, x, y] of points(d ?? '')) {
						expect(x).toBeGreaterThanOrEqual(0);
						expect(x).toBeLessThanOrEqual(480);
						expect(y).toBeGreaterThanOrEqual(0);
						expect(y).toBeLessThanOrEqual(96);
					}
			}),
			{ numRuns: 30 }
		);
	});

	it('nothing is drawn of a wheel that was not recorded', () => {
		expect(
			traceDrawing(
				{ ...TRACE, channel: 'rear_right' },
				samples(() => 40)
			)
		).toBeNull();
	});

	it('a ring has a line for every tooth that is there, and a mark where one is not', () => {
		const seen = Array.from({ length: 40 }, (_, i) => (i === 10 ? 0 : 1));
		const svg = ringSvg({ ring: { teeth: 40, turns: 5, height: seen, seen }, marked: [] });
		expect(svg.match(/<line /g)).toHaveLength(39);
		expect(svg.match(/<path /g)).toHaveLength(1);
	});
});
