import { describe, expect, it } from 'vitest';
import { hourWords, minutesLeft } from './floorWords';

describe('what the floor says of time', () => {
	it('says minutes to the nearest five and hours to the nearest ten', () => {
		expect([3, 42, 58, 61, 95, 125].map(hourWords)).toEqual([
			'5 min',
			'40 min',
			'1 h',
			'1 h',
			'1 h 40 min',
			'2 h 10 min'
		]);
	});

	it('counts what is left of the day to the hour that the shop closes', () => {
		expect(minutesLeft(new Date(2026, 10, 25, 15, 30), 17)).toBe(90);
		expect(minutesLeft(new Date(2026, 10, 25, 18, 0), 17)).toBe(0);
	});
});
