import { describe, expect, it } from 'vitest';
import { streamAddress } from './streamShare';

describe('the one stream of a browser', () => {
	it('asks for every case once, whatever its tabs wish and in whatever order', () => {
		const wishes = [
			{ caseId: 'B', live: 'none' },
			{ caseId: 'A', live: 'recent' },
			{ caseId: 'B', live: 'whole' },
			{ caseId: 'A', live: 'none' }
		] as const;
		expect(streamAddress(wishes)).toBe('/stream?case=A&case=B&live=A&whole=B');
		expect(streamAddress([...wishes].reverse())).toBe(streamAddress(wishes));
	});

	it('is none where nobody wishes anything', () => expect(streamAddress([])).toBeNull());
});
