import { describe, expect, it } from 'vitest';
import { Turns } from './turns';

describe('turns on a thread', () => {
	it('what nobody waits for rests while somebody is served, and then comes to its end', async () => {
		const turns = new Turns();
		const done: string[] = [];
		function* long() {
			for (const part of ['one', 'two', 'three']) {
				done.push(part);
				yield;
			}
			return 'minutes';
		}
		const all = turns.last(long());
		await turns.first(async () => {
			for (let i = 0; i < 5; i++) await new Promise((resolve) => setImmediate(resolve));
			done.push('page');
		});
		expect(await all).toBe('minutes');
		expect(done).toEqual(['one', 'page', 'two', 'three']);
	});

	it('goes on where what somebody waited for failed', async () => {
		const turns = new Turns();
		await expect(turns.first(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
		expect(
			await turns.last(
				(function* () {
					yield;
					return 1;
				})()
			)
		).toBe(1);
	});
});
