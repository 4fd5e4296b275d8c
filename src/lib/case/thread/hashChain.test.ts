import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkChain, entryHash } from './hashChain';
import { ThreadMaker } from './threads.fixture';

const threadOf = (texts: string[]) => {
	const maker = new ThreadMaker();
	for (const text of texts) maker.add('note', { text });
	return maker.thread;
};
const texts = fc.array(fc.string({ minLength: 1, maxLength: 20 }), { minLength: 2, maxLength: 10 });

describe('the chain of hashes', () => {
	it('is intact as written, whatever the words', () => {
		fc.assert(
			fc.property(texts, (words) => {
				expect(checkChain(threadOf(words))).toEqual({ intact: true });
			})
		);
	});

	it('does not depend on the order in which fields were stored', () => {
		const entry = threadOf(['one'])[0]!;
		const turned = Object.fromEntries(Object.entries(entry).reverse()) as typeof entry;
		expect(entryHash(turned)).toBe(entry.hash);
	});

	it('names the first entry that was changed, taken out or moved', () => {
		fc.assert(
			fc.property(texts, fc.nat(), (words, pick) => {
				const at = pick % words.length;
				const changed = threadOf(words);
				changed[at] = { ...changed[at]!, payload: { text: `${words[at]}!` } } as (typeof changed)[number];
				expect(checkChain(changed)).toMatchObject({
					intact: false,
					seq: at + 1,
					reason: expect.stringContaining('changed')
				});
				if (at < words.length - 1) {
					const missing = threadOf(words);
					missing.splice(at, 1);
					expect(checkChain(missing)).toMatchObject({ intact: false, seq: at + 1 });
				}
			})
		);
	});
});
