import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openTestShop, type TestShop } from '../shop.fixture';
import { columnMemory } from './schema';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

const row = (headerKey: string) => ({ headerKey, mapping: '{}', authorName: 'Ana', savedAt: 'now' });
const keys = async () =>
	(await shop.db.select({ key: columnMemory.headerKey }).from(columnMemory)).map(({ key }) => key);
const elsewhere = () => new Promise((resolve) => setImmediate(resolve));

describe('writes on one thread', () => {
	it('never stand in each other’s way: transactions, single writes and batches, all at once', async () => {
		const writes = Array.from({ length: 30 }, (_, i) =>
			i % 3 === 0
				? shop.db.transaction(async (tx) => {
						await tx.insert(columnMemory).values(row(`transaction ${i}`));
						await elsewhere();
						// What others read meanwhile is the database as it was.
						expect(await keys()).not.toContain(`transaction ${i}`);
						await tx.insert(columnMemory).values(row(`transaction ${i} again`));
					})
				: i % 3 === 1
					? shop.db.insert(columnMemory).values(row(`single ${i}`))
					: shop.db.batch([shop.db.insert(columnMemory).values(row(`batch ${i}`))])
		);
		await Promise.all(writes);
		expect(await keys()).toHaveLength(40);
	});

	it('go on after one that failed, and nothing of it stays', async () => {
		const failing = shop.db.transaction(async (tx) => {
			await tx.insert(columnMemory).values(row('half'));
			await elsewhere();
			throw new Error('half way');
		});
		const after = shop.db.insert(columnMemory).values(row('whole'));
		await expect(failing).rejects.toThrow('half way');
		await after;
		await expect(shop.db.run(sql`insert into nowhere values (1)`)).rejects.toThrow();
		await shop.db.transaction(async (tx) => void (await tx.insert(columnMemory).values(row('later'))));
		expect((await keys()).sort()).toEqual(['later', 'whole']);
	});
});
