import { describe, expect, it } from 'vitest';
import { LatestCache } from './latestCache';

describe('what is kept', () => {
	it('is given again only for what it was worked out from', () => {
		const kept = new LatestCache<string>(2);
		kept.keep('case', 'book 1', 'old words');
		expect(kept.find('case', 'book 1')).toBe('old words');
		expect(kept.find('case', 'book 2')).toBeUndefined();
	});

	it('goes when it was not used for longest', () => {
		const kept = new LatestCache<number>(2);
		let made = 0;
		const get = (key: string) => kept.get(key, () => ++made);
		[get('a'), get('b'), get('a'), get('c')].forEach((value, i) => expect(value).toBe([1, 2, 1, 3][i]));
		expect(get('a')).toBe(1);
		expect(get('b')).toBe(4);
	});
});
