import { sql } from 'drizzle-orm';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { EMPTY_BOOK } from '../../../../library/reason/book';
import { openTestShop, put as putEntry, type TestShop } from '../shop.fixture';
import { ReasonBooks } from './reasonBooks';
import { ShopSettings } from './shopSettings';
import { TrackRecord } from './trackRecord';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

async function put<K extends EntryKind>(kind: K, payload: PayloadOf<K>): Promise<void> {
	await putEntry(shop, kind, payload);
	await shop.cases.refresh(shop.caseId);
}
const repair = (kind: string): PayloadOf<'repair'> => ({
	title: kind,
	position: 'rear-left',
	parts: [],
	temporary: false,
	note: '',
	does: { kind, place: 'rear-left' }
});
const step = (
	minutes: number | null,
	how: PayloadOf<'test-step'>['how'] = 'done'
): PayloadOf<'test-step'> => ({
	test: 'fuse',
	place: 'F14',
	name: 'Look at the fuse',
	station: 'measure',
	from: 'suggested',
	how,
	seen: {},
	because: '',
	minutes
});

describe('how sure the shop wants to be', () => {
	it('has a usual value until a lead decides, and refuses what it cannot be', async () => {
		const settings = new ShopSettings(shop.db);
		expect(await settings.read('proving')).toBe(0.8);
		await settings.write('proving', 1, shop.ana);
		expect(await settings.read('proving')).toBe(1);
		await expect(settings.write('proving', 1.5, shop.ana)).rejects.toThrow();
		expect(await settings.read('proving')).toBe(1);
		expect(await settings.read('closesAtHour')).toBe(17);
	});
});

describe('the shop’s own numbers', () => {
	it('keep only what differs from the library, and count up', async () => {
		const books = new ReasonBooks(shop.db);
		expect(await books.read()).toEqual(EMPTY_BOOK);
		const written = await books.write(
			{
				version: 0,
				tests: { fuse: 4, ground: 5 },
				repairs: { 'renew-fuse': { minutes: 3, price: 1 } },
				odds: { 'gap-rust': 9, nothing: 2 }
			},
			shop.ana
		);
		expect(written).toEqual({
			ok: true,
			value: { version: 1, tests: { fuse: 4 }, repairs: {}, odds: { 'gap-rust': 9 } }
		});
		expect((await books.read()).version).toBe(1);
	});

	it('are not overwritten by somebody who saw an older state', async () => {
		const books = new ReasonBooks(shop.db);
		await books.write({ ...EMPTY_BOOK, tests: { fuse: 4 } }, shop.ana);
		const late = await books.write({ ...EMPTY_BOOK, tests: { fuse: 9 } }, shop.ana);
		expect(!late.ok && late.error).toMatch(/Somebody else/);
		expect((await books.read()).tests.fuse).toBe(4);
	});
});

describe('the track record', () => {
	it('counts the last repair of a signed case, and none of one that is open', async () => {
		const record = new TrackRecord(shop.db);
		await put('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' });
		await put('repair', repair('renew-sensor'));
		await put('repair', repair('renew-lead'));
		expect(await record.proven()).toEqual([]);
		await put('signature', { statement: 'Released', verdict: 'Proven clear' });
		expect(await record.proven()).toMatchObject([
			{ caseId: shop.caseId, typeId: 'brindle-marlow-16', kind: 'renew-lead', place: 'rear-left', codes: [] }
		]);
	});

	it('has a case the moment it is signed, before anything kept beside it has followed', async () => {
		const record = new TrackRecord(shop.db);
		await put('repair', repair('renew-lead'));
		expect(await record.read()).toEqual([]);
		await putEntry(shop, 'signature', { statement: 'Released', verdict: 'Proven clear' });
		expect(await record.read()).toHaveLength(1);
	});

	it('takes a case that came back off the record, and names its comeback', async () => {
		const record = new TrackRecord(shop.db);
		const opened = { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' };
		await put('case-opened', opened);
		await put('repair', repair('renew-lead'));
		await put('signature', { statement: 'Released', verdict: 'Proven clear' });
		expect(await record.proven()).toHaveLength(1);
		const first = shop.caseId;
		const [vehicle] = await shop.vehicles.newest();
		shop.caseId = await shop.cases.open(ulid(), vehicle?.id ?? '');
		await put('case-opened', {
			...opened,
			comebackOf: { caseId: first, number: 'TP-0401', lastHash: '0'.repeat(64) }
		});
		expect(await record.proven()).toEqual([]);
		expect(await record.comebacksOf(first)).toEqual([{ id: shop.caseId, number: 402 }]);
		expect(await record.comebacksOf(shop.caseId)).toEqual([]);
	});

	it('learns nothing from what was released or closed unproven', async () => {
		const record = new TrackRecord(shop.db);
		await put('repair', repair('renew-lead'));
		await put('signature', { statement: 'Released', verdict: 'Proven clear', outcome: 'released' });
		expect(await record.proven()).toEqual([]);
		const [vehicle] = await shop.vehicles.newest();
		shop.caseId = await shop.cases.open(ulid(), vehicle?.id ?? '');
		await put('repair', repair('renew-lead'));
		await put('signature', {
			statement: 'It is gone.',
			verdict: 'Closed unproven',
			outcome: 'unproven',
			left: []
		});
		expect(await record.proven()).toEqual([]);
	});

	it('is taken off by a lead, with a reason, and learned from again', async () => {
		const record = new TrackRecord(shop.db);
		expect(await record.unlearn(shop.caseId, 'Not yet signed', shop.ana)).toMatchObject({ ok: false });
		await put('repair', repair('renew-lead'));
		await put('signature', { statement: 'Released', verdict: 'Proven clear', outcome: 'proven' });
		const before = await record.stamp();
		expect(await record.read()).toHaveLength(1);
		expect(await record.unlearn(shop.caseId, 'The meter was broken', shop.ana)).toMatchObject({ ok: true });
		expect(await record.stamp()).not.toBe(before);
		expect(await record.read()).toEqual([]);
		expect(await record.taught()).toMatchObject([
			{ caseId: shop.caseId, unlearned: { why: 'The meter was broken', by: shop.ana.name } }
		]);
		await record.learnAgain(shop.caseId, shop.ana);
		expect(await record.stamp()).toBe(before);
		expect(await record.read()).toHaveLength(1);
	});

	it('takes the mean of what the timers measured, of steps that were done', async () => {
		for (const one of [step(3), step(5), step(null), step(40, 'skipped')]) await put('test-step', one);
		expect(await new TrackRecord(shop.db).minutes()).toEqual({ fuse: { times: 2, mean: 4 } });
	});

	it('counts on from where it was, and anew where what it had counted was taken away', async () => {
		const record = new TrackRecord(shop.db);
		await put('test-step', step(3));
		expect(await record.minutes()).toEqual({ fuse: { times: 1, mean: 3 } });
		const id = await putEntry(shop, 'test-step', step(5));
		expect(await Promise.all([record.minutes(), record.minutes()])).toEqual(
			Array(2).fill({ fuse: { times: 2, mean: 4 } })
		);
		// A case that was only half brought in is taken away at the next start; its rows may be given to others.
		await shop.db.run(sql`DROP TRIGGER entry_never_removed`);
		await shop.db.run(sql`DELETE FROM entry WHERE id = ${id}`);
		expect(await record.minutes()).toEqual({ fuse: { times: 1, mean: 3 } });
	});
});
