import { describe, expect, it } from 'vitest';
import { hourWords, minutesLeft, toGoWords } from './floorWords';

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

	it('promises today only what eight in ten finish', () => {
		const outlook = { meanMinutes: 60, lowMinutes: 40, highMinutes: 100 };
		expect(toGoWords(outlook, 120)?.today).toBe('yes');
		expect(toGoWords(outlook, 90)?.today).toBe('perhaps');
		expect(toGoWords(outlook, 30)?.today).toBe('no');
		expect(toGoWords({ ...outlook, lowMinutes: null }, 90)).toBeNull();
		expect(toGoWords(outlook, 0)?.today).toBeNull();
	});

	it('says no range where there is none', () => {
		expect(toGoWords({ meanMinutes: 61, lowMinutes: 60, highMinutes: 62 }, 90)?.words).toBe('about 1 h');
		expect(toGoWords({ meanMinutes: 60, lowMinutes: 40, highMinutes: 100 }, 90)?.words).toBe(
			'about 1 h (40 min to 1 h 40 min)'
		);
	});
});
