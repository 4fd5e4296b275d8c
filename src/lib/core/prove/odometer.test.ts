import { describe, expect, it } from 'vitest';
import { kmDrivenSo } from './drivenBands';
import { drivenIn, Odometer } from './odometer';

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

	it('a module that says it has no speed adds nothing', () => {
		expect(drive([...steady(60, 0, 60), ...steady(655.35, 60.1, 70)])).toMatchObject({
			km: expect.closeTo(1, 9),
			topKmh: 60
		});
	});

	it('keeps apart how it was driven: a slow bend, then straight on at speed', () => {
		const timeS = Float64Array.from({ length: 1201 }, (_, i) => i / 10);
		const channels = new Map([
			['vehicle', timeS.map((t) => (t <= 60 ? 18 : 72))],
			['steering', timeS.map((t) => (t <= 60 ? -120 : 5))]
		]);
		const driven = drivenIn({ timeS, channels });
		const km = (fromKmh: number | null, toKmh: number | null, turning: boolean) =>
			kmDrivenSo(driven?.bands ?? [], { fromKmh, toKmh, turning });
		expect(km(null, 20, true)).toBeCloseTo(0.3, 2);
		expect(km(70, null, false)).toBeCloseTo(1.2, 2);
		expect(km(70, null, true)).toBe(0);
		expect(drivenIn({ timeS, channels: new Map() })).toBeNull();
	});
});
