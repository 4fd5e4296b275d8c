import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Pace } from './pace';

describe('how often one person may ask', () => {
	beforeEach(() => void vi.useFakeTimers());
	afterEach(() => void vi.useRealTimers());

	it('is so often a minute, of what costs less, and nobody else has less for it', async () => {
		const pace = new Pace(50);
		const ask = (who: string, costs = false) => pace.waitS(who, costs);
		for (let i = 0; i < 2; i++) expect(await ask('ana', true)).toBe(0);
		expect(await ask('ana', true)).toBeGreaterThan(0);
		for (let i = 0; i < 47; i++) expect(await ask('ana')).toBe(0);
		const waits = await ask('ana');
		expect(waits).toBeGreaterThan(50);
		expect(waits).toBeLessThanOrEqual(60);
		expect(await ask('marit', true)).toBe(0);
		vi.advanceTimersByTime(60_001);
		expect(await ask('ana', true)).toBe(0);
	});
});
