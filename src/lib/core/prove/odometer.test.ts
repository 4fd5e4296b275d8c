import { describe, expect, it } from 'vitest';
import { Odometer } from './odometer';

const drive = (readings: [number, number | null][]) => {
	const odometer = new Odometer();
	for (const [timeS, kmh] of readings) odometer.sample(timeS, kmh);
	return odometer.driven;
};
const steady = (kmh: number, fromS: number, toS: number): [number, number][] =>
	Array.from({ length: (toS - fromS) * 10 + 1 }, (_, i) => [fromS + i / 10, kmh]);

describe('what a drive comes to', () => {
	it('a minute at 60 km/h is one kilometre', () => {
		expect(drive(steady(60, 0, 60))).toMatchObject({ km: expect.closeTo(1, 9), topKmh: 60, stops: 0 });
	});

	it('an even rise counts with its middle', () => {
		const ramp = Array.from({ length: 101 }, (_, i): [number, number] => [i / 10, i]);
		expect(drive(ramp).km).toBeCloseTo((50 * 10) / 3600, 6);
	});

	it('counts stops after rolling, and creeping in a queue as none', () => {
		const stop = (fromS: number): [number, number][] => [
			...steady(30, fromS, fromS + 5),
			...steady(0, fromS + 6, fromS + 8)
		];
		expect(drive([...stop(0), ...stop(10), ...stop(20)]).stops).toBe(3);
		expect(drive([...steady(3, 0, 5), ...steady(0, 6, 8)]).stops).toBe(0);
	});

	it('what was not read counts for nothing, and neither does a hole', () => {
		expect(
			drive([
				[0, 60],
				[1, null],
				[2, NaN],
				[60, 60]
			]).km
		).toBe(0);
	});
});
