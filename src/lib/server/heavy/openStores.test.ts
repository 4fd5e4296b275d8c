import { describe, expect, it } from 'vitest';
import type { Stores } from '../stores';
import { StoresOfShops } from './openStores';

const shop = (name: string) => ({ databaseUrl: `file:/shops/${name}`, secret: '', origin: '' });

/** Stores that say what was opened and closed. */
function watched(most: number, refused = new Set<string>()) {
	const told: string[] = [];
	const shops = new StoresOfShops(async ({ databaseUrl }) => {
		const name = databaseUrl.slice('file:/shops/'.length);
		told.push(`open ${name}`);
		if (refused.has(name)) throw new Error(`no ${name}`);
		return {
			origin: name,
			db: { $client: { close: () => told.push(`close ${name}`) } }
		} as unknown as Stores;
	}, most);
	const ask = (name: string) => shops.with(shop(name), ({ origin }) => Promise.resolve(origin));
	return { shops, told, ask };
}

describe('what a thread has open of the shops it works for', () => {
	it('gives each shop its own, opened once, and closes what rested longest', async () => {
		const { told, ask, shops } = watched(2);
		expect([await ask('a'), await ask('b'), await ask('a')]).toEqual(['a', 'b', 'a']);
		expect(await ask('c')).toBe('c');
		expect(told).toEqual(['open a', 'open b', 'open c', 'close b']);
		expect(shops.count).toBe(2);
	});

	it('closes nothing that is worked with, whatever else is asked for', async () => {
		const { told, ask, shops } = watched(1);
		let end = () => {};
		const long = shops.with(shop('a'), () => new Promise<void>((resolve) => (end = resolve)));
		await ask('b');
		expect(told).toEqual(['open a', 'open b', 'close b']);
		end();
		await long;
		await ask('c');
		expect(told.slice(3)).toEqual(['open c', 'close a']);
	});

	it('tries one anew that could not be opened', async () => {
		const refused = new Set(['a']);
		const { ask } = watched(2, refused);
		await expect(ask('a')).rejects.toThrow('no a');
		refused.clear();
		expect(await ask('a')).toBe('a');
	});
});
