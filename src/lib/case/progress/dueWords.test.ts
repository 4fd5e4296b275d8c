import { describe, expect, it } from 'vitest';
import { dueWords } from './dueWords';

const NOW = new Date(2026, 11, 1, 16, 0);

describe('a moment that something is promised for', () => {
	it.each([
		[new Date(2026, 11, 1, 15, 30), 'today 15:30'],
		[new Date(2026, 11, 2, 0, 5), 'tomorrow 00:05'],
		[new Date(2026, 10, 30, 23, 59), 'yesterday 23:59'],
		[new Date(2026, 11, 5, 12, 0), 'Sat 12:00'],
		[new Date(2026, 11, 8, 12, 0), '8 Dec 12:00'],
		[new Date(2026, 10, 24, 9, 0), '24 Nov 09:00']
	])('%s is said in the fewest words that say which day', (due, words) => {
		expect(dueWords(due, NOW)).toBe(words);
	});
});
