import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareTyres, whatItBelieves, type RollingWheel } from './compareTyres';
import { revolutionsPerKm, rollingCircumferenceMm } from './rollingCircumference';
import { parseTyreSize } from './tyreSize';

const size = (text: string) => {
	const parsed = parseTyreSize(text);
	if (!parsed.ok) throw new Error(parsed.error);
	return parsed.value;
};

describe('a tyre size', () => {
	it.each([
		['205/55R16', '205/55R16', 631.9],
		['205/55 R16 91V', '205/55R16', 631.9],
		['p205/55r16', '205/55R16', 631.9],
		['205/55ZR17 95Y', '205/55R17', 657.3],
		['LT245/75R16 120/116S', 'LT245/75R16', 773.9],
		['205/75R16C 110/108R', '205/75R16C', 713.9],
		['T125/70D16', 'T125/70D16', 581.4],
		['T125/70-16', 'T125/70D16', 581.4],
		['185R14C', '185R14C', 659],
		['31x10.50R15LT', '31x10.5R15', 787.4],
		['33 X 12,5 R 15', '33x12.5R15', 838.2],
		['ST205/75R15', 'ST205/75R15', 688.5]
	])('%s is %s with %f mm', (text, spelled, diameterMm) => {
		expect(size(text).text).toBe(spelled);
		expect(size(text).diameterMm).toBeCloseTo(diameterMm, 1);
	});

	it('tells load, speed and use', () => {
		expect(size('205/75R16C 110/108R')).toMatchObject({
			loadIndex: '110/108',
			speedRating: 'R',
			use: 'commercial'
		});
		expect(size('T125/70D16')).toMatchObject({ use: 'temporary', loadIndex: null });
		expect(size('185R14').aspectAssumed).toBe(true);
	});

	it.each([
		'',
		'205',
		'205/55',
		'55R16',
		'999/55R16',
		'205/5R16',
		'205/55R99',
		'12x10R15',
		'R16',
		'205/55R16 and more',
		'205/155R16'
	])('%s is none, and it says what was expected', (text) => {
		const parsed = parseTyreSize(text);
		expect(parsed.ok).toBe(false);
		if (!parsed.ok) expect(parsed.error).toMatch(/expected|does not go/);
	});

	it('any text comes back, with a size or a sentence', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 30 }), (text) => {
				const parsed = parseTyreSize(text);
				if (parsed.ok) expect(parsed.value.diameterMm).toBeGreaterThan(200);
			})
		);
	});

	it('what it spells it reads again as the same', () => {
		const sizes = fc.record({
			width: fc.integer({ min: 24, max: 60 }).map((n) => n * 5 + 25),
			aspect: fc.integer({ min: 6, max: 17 }).map((n) => n * 5),
			rim: fc.integer({ min: 12, max: 24 })
		});
		fc.assert(
			fc.property(sizes, ({ width, aspect, rim }) => {
				const first = size(`${width}/${aspect}R${rim}`);
				expect(size(first.text)).toEqual(first);
			})
		);
	});
});

describe('rolling', () => {
	it('on load factor · π · diameter', () => {
		expect(rollingCircumferenceMm(631.9, 0.96)).toBeCloseTo(0.96 * Math.PI * 631.9, 9);
		expect(revolutionsPerKm(2000)).toBe(500);
	});

	it('a worn tyre is smaller by twice the lost tread, a soft one by a little', () => {
		expect(rollingCircumferenceMm(600, 1, { treadMm: 3 })).toBeCloseTo(Math.PI * 590, 9);
		const soft = rollingCircumferenceMm(600, 1, { pressureShare: 0.5 }) / rollingCircumferenceMm(600, 1);
		expect(soft).toBeCloseTo(0.985, 9);
	});

	it('refuses a factor that no tyre has', () => {
		expect(() => rollingCircumferenceMm(600, 1.5)).toThrow(RangeError);
		expect(() => rollingCircumferenceMm(600, Number.NaN)).toThrow(RangeError);
	});
});

describe('wheels against each other', () => {
	const four = (fl: number, fr: number, rl: number, rr: number): RollingWheel[] => [
		{ position: 'front-left', axle: 1, side: 'left', circumferenceMm: fl },
		{ position: 'front-right', axle: 1, side: 'right', circumferenceMm: fr },
		{ position: 'rear-left', axle: 2, side: 'left', circumferenceMm: rl },
		{ position: 'rear-right', axle: 2, side: 'right', circumferenceMm: rr }
	];

	it('front and rear, left and right, and the widest of all', () => {
		expect(compareTyres(four(1900, 1900, 2000, 2000), 6)).toEqual({
			frontToRear: expect.closeTo(0.95, 9),
			leftToRight: 1,
			spreadPercent: expect.closeTo(5.263, 3),
			crossesAtKmh: expect.closeTo(6 / (2000 / 1900 - 1), 6)
		});
	});

	it('at the speed it names, readings differ by just the threshold', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1500, max: 2500, noNaN: true }),
				fc.double({ min: 1.001, max: 1.2, noNaN: true }),
				fc.double({ min: 1, max: 20, noNaN: true }),
				(small, factor, thresholdKmh) => {
					const large = small * factor;
					const { crossesAtKmh } = compareTyres(four(large, large, large, small), thresholdKmh);
					// Told the large circumference, the module reads the small wheel faster by the ratio.
					expect((crossesAtKmh ?? 0) * (large / small) - (crossesAtKmh ?? 0)).toBeCloseTo(thresholdKmh, 6);
				}
			)
		);
	});

	it('alike, nothing is ever crossed; without a threshold neither', () => {
		expect(compareTyres(four(2000, 2000, 2000, 2000), 5).crossesAtKmh).toBeNull();
		expect(compareTyres(four(1900, 2000, 2000, 2000), null).crossesAtKmh).toBeNull();
	});

	it.each([
		[0.95, 'front', /driven front axle .* cuts power/],
		[0.95, 'rear', /front axle is not driven .* plausibility/],
		[1.05, 'rear', /driven rear axle .* cuts power/],
		[1.05, 'all', /rear axle .* coupling/],
		[1.05, null, /rear axle reads faster/],
		[1.004, 'front', /alike/]
	] as const)('front to rear %f with drive %s', (frontToRear, drive, words) => {
		expect(whatItBelieves(frontToRear, drive)).toMatch(words);
	});
});
