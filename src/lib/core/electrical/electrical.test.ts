import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { busResistance } from './busResistance';
import { coilResistanceAt20C } from './coilResistance';
import { dividerOhms, dividerVolts } from './divider';
import { expectedWindow, ruledWindow } from './expectedWindow';
import { halve, READING_MIN, type PointReading, type WirePoint } from './halving';
import { identifySensor } from './identifySensor';
import { judgeReading, meterAccuracy } from './judgeReading';
import { seriesResistance } from './seriesResistance';
import { frequencyForSpeedHz, judgeSubstitute, resistorForCurrent, speedForFrequencyKmh } from './substitute';

describe('a reading', () => {
	it.each([
		[1200, 'in'],
		[805, 'borderline'],
		[780, 'out'],
		[2510, 'borderline'],
		[2540, 'out'],
		[Infinity, 'out']
	] as const)('of %f Ω on a coil of 800 to 2500 Ω is %s', (ohms, judged) => {
		expect(judgeReading(ohms, { low: 800, high: 2500 }, meterAccuracy('Ω', ohms))).toBe(judged);
	});

	it('over the range is right where an open circuit is wanted', () => {
		expect(judgeReading(Infinity, { low: 1e6, high: Infinity }, 0)).toBe('in');
	});
});

describe('formulas', () => {
	it('a coil warm at 60 °C reads 15.7 % more than at 20 °C', () => {
		expect(coilResistanceAt20C(1240, 60)).toBeCloseTo(1071.6, 1);
		expect(coilResistanceAt20C(1100, 20)).toBe(1100);
		expect(() => coilResistanceAt20C(1100, 300)).toThrow(RangeError);
	});

	it('2.7 V lost at 14 mA are 193 Ω', () => {
		expect(seriesResistance(12.1, 9.4, 0.014)).toBeCloseTo(192.9, 1);
		expect(() => seriesResistance(12, 11, 0)).toThrow('current');
	});

	it('a divider and its inverse agree for every resistance', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1, max: 1e6, noNaN: true }),
				fc.double({ min: 10, max: 1e5, noNaN: true }),
				(ohms, series) => {
					expect(dividerOhms(5, dividerVolts(5, ohms, series), series) / ohms).toBeCloseTo(1, 6);
				}
			)
		);
		expect(dividerVolts(5, Infinity, 20_000)).toBe(5);
		expect(dividerOhms(5, 5, 20_000)).toBe(Infinity);
	});

	it.each([
		[60, 'two'],
		[61.5, 'two'],
		[120, 'one'],
		[40, 'three'],
		[0.4, 'short'],
		[85, 'between'],
		[Infinity, 'none']
	] as const)('%f Ω between the lines of a bus: %s', (ohms, finding) => {
		expect(busResistance(ohms).finding).toBe(finding);
	});

	it('a frequency stands for a speed and back', () => {
		expect(frequencyForSpeedHz(46, 20, 2.13)).toBeCloseTo(119.98, 1);
		expect(speedForFrequencyKmh(46, frequencyForSpeedHz(46, 37, 2.13), 2.13)).toBeCloseTo(37, 9);
		expect(resistorForCurrent(12.1, 0.014, 115)).toBeCloseTo(749.3, 1);
		expect(() => resistorForCurrent(0.5, 0.014, 115)).toThrow(RangeError);
	});
});

describe('a substituted signal', () => {
	it.each([
		[30, { low: 29.4, high: 30.4 }, 'follows'],
		[30, { low: 0, high: 0 }, 'nothing'],
		[30, null, 'nothing'],
		[30, { low: 27, high: 27.4 }, 'another-value'],
		[30, { low: 0, high: 30 }, 'not-steady'],
		[0, { low: 0, high: 2.75 }, 'follows'],
		[0, { low: 0, high: 0.2 }, 'nothing']
	] as const)('for %f km/h of which %j is seen: %s', (expected, seen, outcome) => {
		expect(judgeSubstitute(expected, seen)).toBe(outcome);
	});
});

describe('the window to judge by', () => {
	const vehicle = { senseResistorOhms: 115, supplyVolts: 12.6 };
	const coil = { kind: 'fixed', low: 800, high: 2500 } as const;

	it('comes from the library, then the vehicle, then the shop, then the mate', () => {
		const none = { mate: null, shop: [] };
		expect(expectedWindow(coil, 'Ω', vehicle, none)).toMatchObject({
			low: 800,
			high: 2500,
			source: 'library'
		});
		const sense = { kind: 'sense', lowA: 0.007, highA: 0.007, tolerance: 0.2 } as const;
		expect(expectedWindow(sense, 'V', vehicle, none)).toMatchObject({
			source: 'vehicle',
			because: 'from this vehicle’s sense resistor of 115 Ω'
		});
		expect(ruledWindow(sense, vehicle).low).toBeCloseTo(0.644, 3);
		expect(expectedWindow(coil, 'Ω', vehicle, { mate: null, shop: [1100, 1120, 1090] }).source).toBe('shop');
		const fromMate = expectedWindow(coil, 'Ω', vehicle, { mate: 1150, shop: [1100] });
		expect(fromMate.source).toBe('mate');
		expect(fromMate.low).toBeCloseTo(1012, 6);
		expect(fromMate.high).toBeCloseTo(1288, 6);
		expect(ruledWindow({ kind: 'supply', fromV: -2, toV: 0.1 }, vehicle)).toMatchObject({
			low: 10.6,
			high: 12.7
		});
	});

	it('a mate that is itself outside makes nothing good', () => {
		expect(expectedWindow(coil, 'Ω', vehicle, { mate: 300, shop: [] }).source).toBe('library');
		const edge = expectedWindow(coil, 'Ω', vehicle, { mate: 820, shop: [] });
		expect(edge.low).toBe(800);
	});
});

describe('which sensor it is', () => {
	const questions = [
		{
			id: 'wires',
			answers: [
				{ id: '2', likelihood: { coil: 1, current: 1, collector: 0 } },
				{ id: '3', likelihood: { coil: 0, current: 0, collector: 1 } }
			]
		},
		{
			id: 'feed',
			answers: [
				{ id: 'none', likelihood: { coil: 0.95, current: 0.02, collector: 0.02 } },
				{ id: 'supply', likelihood: { coil: 0.05, current: 0.98, collector: 0.98 } }
			]
		}
	];
	const prior = { coil: 1, current: 2, collector: 1 };

	it('asks first what tells most, and ends when it is certain', () => {
		const start = identifySensor(prior, questions, {});
		expect(start.certain).toBeNull();
		// H = 1.5 bits; wires leave 3/4·H(1/3) = 0.69, the feed 0.86.
		expect(start.next?.id).toBe('wires');
		expect(start.next?.bits).toBeCloseTo(1.5 - 0.75 * 0.9183, 3);
		expect(identifySensor(prior, questions, { wires: '3' })).toMatchObject({
			certain: 'collector',
			next: null
		});
		expect(identifySensor(prior, questions, { wires: '2', feed: 'none' })).toMatchObject({ certain: 'coil' });
		expect(identifySensor(prior, questions, { wires: '2', feed: 'supply' })).toMatchObject({
			certain: 'current'
		});
	});

	it('says when the answers do not fit together', () => {
		const odd = [
			...questions,
			{ id: 'again', answers: [{ id: '2', likelihood: { coil: 1, current: 1, collector: 0 } }] }
		];
		expect(identifySensor(prior, odd, { wires: '3', again: '2' }).contradiction).toBe(true);
	});
});

describe('halving a wire', () => {
	const points = (access: number[]): WirePoint[] =>
		access.map((accessMin, i) => ({ id: `p${i}`, behind: `p${i}`, accessMin, probed: true }));

	it('takes the middle of a wire that is the same everywhere, and ends at one stretch', () => {
		const wire = points([0, 2, 2, 2, 2, 2, 2, 2, 0]);
		const even = [1, 1, 1, 1, 1, 1, 1, 1];
		expect(halve(wire, even, {}).next[0]).toMatchObject({ point: 'p4', minutes: 3, expectedMin: 9 });
		const later = halve(wire, even, { p4: 'good', p6: 'bad' });
		expect(later.between).toEqual(['p4', 'p6']);
		expect(later.next.map(({ point }) => point)).toEqual(['p5']);
		expect(later.chances[4]).toBeCloseTo(0.5, 9);
		expect(halve(wire, even, { p4: 'good', p5: 'bad' })).toMatchObject({
			found: true,
			between: ['p4', 'p5'],
			next: []
		});
	});

	it('goes round a place that is hard to reach, unless it is already open', () => {
		const wire = points([0, 5, 60, 5, 0]);
		const even = [1, 1, 1, 1];
		expect(halve(wire, even, {}).next[0]?.point).not.toBe('p2');
		expect(halve(wire, even, {}, ['p2']).next[0]?.point).toBe('p2');
	});

	it('the other side of a plug costs nothing once the plug is open', () => {
		const wire: WirePoint[] = [
			{ id: 'module', behind: 'module', accessMin: 25, probed: true },
			{ id: 'X:a', behind: 'X', accessMin: 12, probed: true },
			{ id: 'X:b', behind: 'X', accessMin: 12, probed: true },
			{ id: 'sensor', behind: 'sensor', accessMin: 3, probed: true }
		];
		const step = halve(wire, [1, 2, 1], { 'X:a': 'good' }).next[0];
		expect(step).toMatchObject({ point: 'X:b', minutes: READING_MIN });
	});

	it('says which two readings cannot both be right', () => {
		expect(halve(points([0, 1, 1, 1, 0]), [1, 1, 1, 1], { p1: 'bad', p3: 'good' }).contradiction).toEqual({
			good: 'p3',
			bad: 'p1'
		});
	});

	it('is never dearer than measuring from one end to the other, nor than always the middle', () => {
		const walk = (wire: WirePoint[], weights: number[], choose: (inside: number[]) => number): number => {
			const cost = (i: number, j: number): number => {
				const inside = Array.from({ length: Math.max(0, j - i - 1) }, (_, n) => i + 1 + n);
				if (inside.length === 0) return 0;
				const k = choose(inside);
				const all = weights.slice(i, j).reduce((a, b) => a + b, 0);
				const before = weights.slice(i, k).reduce((a, b) => a + b, 0) / all;
				return READING_MIN + (wire[k]?.accessMin ?? 0) + before * cost(i, k) + (1 - before) * cost(k, j);
			};
			return cost(0, wire.length - 1);
		};
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 9 })), {
					minLength: 4,
					maxLength: 9
				}),
				(drawn) => {
					const wire = points(drawn.map(([access]) => access));
					const weights = drawn.slice(1).map(([, weight]) => weight);
					const best = halve(wire, weights, {}).next[0]?.expectedMin ?? 0;
					expect(best).toBeLessThanOrEqual(walk(wire, weights, (inside) => inside[0] ?? 0) + 1e-9);
					expect(best).toBeLessThanOrEqual(
						walk(wire, weights, (inside) => inside[inside.length >> 1] ?? 0) + 1e-9
					);
				}
			)
		);
	});

	it('finds the stretch wherever the fault is, in as many steps as it said on average', () => {
		const wire = points([0, 4, 1, 9, 2, 2, 0]);
		const weights = [3, 1, 2, 2, 1, 4];
		const said = halve(wire, weights, {}).next[0]?.expectedMin ?? 0;
		let mean = 0;
		for (const [fault, weight] of weights.entries()) {
			const readings: Record<string, PointReading> = {};
			let spent = 0;
			for (;;) {
				const { found, between, next } = halve(wire, weights, readings);
				if (found) {
					expect(between).toEqual([`p${fault}`, `p${fault + 1}`]);
					break;
				}
				const step = next[0];
				if (!step) throw new Error('nothing to measure');
				spent += step.minutes;
				readings[step.point] = Number(step.point.slice(1)) <= fault ? 'good' : 'bad';
			}
			mean += (weight * spent) / 13;
		}
		expect(mean).toBeCloseTo(said, 9);
	});
});
