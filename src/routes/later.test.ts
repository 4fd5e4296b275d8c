import { describe, expect, it, vi } from 'vitest';
import { orLater } from './later';

describe('what a page is loaded with', () => {
	it('comes with the page where it is at hand', async () => {
		expect(await orLater('case 1', Promise.resolve(7))).toEqual({ of: 'case 1', now: 7 });
	});

	it('follows the page where it is still worked out', async () => {
		vi.useFakeTimers();
		let done: (value: number) => void = () => undefined;
		const page = orLater('case 1', new Promise<number>((resolve) => (done = resolve)));
		await vi.runAllTimersAsync();
		vi.useRealTimers();
		const later = await page;
		expect(later).toMatchObject({ of: 'case 1', coming: expect.any(Promise) });
		done(7);
		expect('coming' in later && (await later.coming)).toBe(7);
	});

	it('fails as a page does where it fails at once', async () => {
		await expect(orLater('case 1', Promise.reject(new Error('too much')))).rejects.toThrow('too much');
	});
});
