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

	it('counts what is left of the day’s work, which begins when the shop opens', () => {
		const hours = { opens: 7.5, closes: 17 };
		const left = (hour: number, minute = 0) => minutesLeft(new Date(2026, 10, 25, hour, minute), hours);
		expect(left(15, 30)).toBe(90);
		expect(left(18)).toBe(0);
		expect([left(0, 20), left(6), left(7, 30)]).toEqual([570, 570, 570]);
	});
});
