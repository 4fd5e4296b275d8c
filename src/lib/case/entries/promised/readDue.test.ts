import { describe, expect, it } from 'vitest';
import { readDue } from './readDue';

/** A Tuesday morning. */
const NOW = new Date(2026, 11, 1, 10, 0);
const on = (month: number, day: number, hour: number, minute = 0, year = 2026) =>
	new Date(year, month - 1, day, hour, minute).getTime();

describe('when something is promised', () => {
	it.each([
		['tomorrow 3pm', on(12, 2, 15)],
		['today 15:30', on(12, 1, 15, 30)],
		['Fri noon', on(12, 4, 12)],
		['16:30', on(12, 1, 16, 30)],
		['9:00', on(12, 2, 9)],
		['at 3', on(12, 2, 15)],
		['in two hours', on(12, 1, 12)],
		['2026-12-04 10:15', on(12, 4, 10, 15)],
		['12/10 16:00', on(10, 12, 16, 0, 2027)],
		['before the market on Saturday', on(12, 5, 17, 30)],
		['tomorrow morning', on(12, 2, 12)],
		['today', on(12, 1, 17, 30)]
	])('is read from “%s”', (words, moment) => {
		expect(readDue(words, NOW, 17.5)?.due.getTime()).toBe(moment);
	});

	it.each(['', 'as soon as can be', 'when the road is dry'])('is nothing in “%s”', (words) => {
		expect(readDue(words, NOW, 17)).toBeNull();
	});

	it('says whether an hour was named, or only a day', () => {
		expect([readDue('friday', NOW, 17)?.hour, readDue('friday 8am', NOW, 17)?.hour]).toEqual([false, true]);
	});
});
