import { expect, it } from 'vitest';
import { restsAfterWork } from './tidyMemory';

it('tidies up once after each stretch of work, and never in the middle of it', () => {
	const rests = restsAfterWork();
	const told = [0.01, 0.6, 0.1, 0.9, 0.02, 0.01, 0, 0.1, 0.03, 0.4, 0.04].map(rests);
	expect(told).toEqual([false, false, false, false, true, false, false, false, false, false, true]);
});
