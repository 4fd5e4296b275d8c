import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changesOf, triedIn } from './provoked';

const RATE_HZ = 12;
/** A wheel turned by hand, unevenly. @param shape speed by time, as a share of ten km/h */
const turned = (seconds: number, shape: (atS: number) => number = () => 1, ripple = 0.2) => {
	const timeS = Float64Array.from({ length: seconds * RATE_HZ }, (_, i) => i / RATE_HZ);
	return { timeS, kmh: timeS.map((t) => 10 * shape(t) * (1 + ripple * Math.sin(2.1 * t))) };
};
const goneAt =
	(...moments: number[]) =>
	(atS: number) =>
		moments.some((one) => atS >= one && atS < one + 0.5) ? 0 : 1;

describe('changes of a wheel turned by hand', () => {
	it('a value that falls at once and is back at once has changed', () => {
		expect(changesOf(turned(20, goneAt(4, 9.5))).map((one) => Math.round(one * 10) / 10)).toEqual([4, 9.5]);
	});

	it('"not available" is no speed: it is gone', () => {
		const samples = turned(10);
		samples.kmh.fill(655.35, 40, 46);
		expect(changesOf(samples)).toHaveLength(1);
	});

	it('a module that gives no value any more has lost it, whoever turns; then no time is counted', () => {
		const samples = turned(20);
		samples.kmh.fill(655.35, 8 * RATE_HZ);
		expect(changesOf(samples)).toHaveLength(1);
		const [lead] = triedIn(samples, [{ atS: 3, label: 'lead' }]);
		expect(lead).toMatchObject({ changes: 1 });
		expect(lead?.seconds).toBeCloseTo(5, 0);
	});

	it('a jump up and back has changed too', () => {
		const samples = turned(10);
		samples.kmh[50] = 48;
		expect(changesOf(samples)).toHaveLength(1);
	});

	it.each([
		['is turned unevenly', () => 1],
		['runs down and is taken up again', (t: number) => Math.abs(Math.cos(t / 2))],
		[
			'is stopped at once and pushed on slowly',
			(t: number) => (t > 5 && t < 8 ? 0 : Math.min(1, Math.abs(t - 8) / 2))
		],
		['is stopped for good', (t: number) => (t > 6 ? 0 : 1)]
	])('a wheel that %s has not changed', (_, shape) => {
		expect(changesOf(turned(16, shape))).toEqual([]);
	});

	it('what stays away counts where somebody says that the wheel still turns', () => {
		const gone = turned(16, (t) => (t > 6 ? 0 : 1));
		expect(changesOf(gone, [9])).toHaveLength(1);
		expect(changesOf(gone, [3])).toEqual([]);
	});

	it('as many changes as there were, wherever they lie and at whatever rate', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }),
				fc.integer({ min: 8, max: 40 }),
				(seconds, rateHz) => {
					const moments = seconds.map((one) => one * 2);
					const timeS = Float64Array.from({ length: 22 * rateHz }, (_, i) => i / rateHz);
					const kmh = timeS.map((t) => 10 * goneAt(...moments)(t) * (1 + 0.1 * Math.sin(3 * t)));
					expect(changesOf({ timeS, kmh })).toHaveLength(moments.length);
				}
			)
		);
	});
});

describe('what was done', () => {
	const done = [
		{ atS: 2, label: 'plug X20' },
		{ atS: 8, label: 'lead' },
		{ atS: 12, label: '' },
		{ atS: 16, label: 'plug X20' }
	];

	it('each thing has its time and its changes, also where it is done twice', () => {
		const tried = triedIn(turned(20, goneAt(3, 6, 14, 17)), done);
		expect(tried.map(({ label, changes }) => [label, changes])).toEqual([
			['plug X20', 3],
			['lead', 0]
		]);
		// Six seconds and four, less a change of half a second each time.
		expect(tried[0]?.seconds).toBeCloseTo(8.5, 0);
		expect(tried[1]?.seconds).toBeCloseTo(4, 0);
	});

	it('a wheel that stands adds no time', () => {
		expect(
			triedIn(
				turned(20, (t) => (t > 9 ? 0 : 1)),
				done
			)[1]?.seconds
		).toBeLessThan(1.2);
	});
});
