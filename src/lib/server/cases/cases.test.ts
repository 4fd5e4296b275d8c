import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { CodePack } from '../../../../library/codePack';
import type { PayloadOf } from '../../case/entries/entry';
import { oneCodeRead } from '../../case/thread/oneCode.fixture';
import { caseCode, caseRecord } from '../db/schema';
import { TrackRecord } from '../db/trackRecord';
import { inlineWork } from '../heavy/inline';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { loadCase } from './access';
import { addEntry } from './addEntry';
import { knownHere } from './knownHere';
import { nextOf } from './outlook';
import { reasonOf } from './reason';
import { reasonPage } from './reasonPage';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

/** A case on which the brake module told of one code that no shipped pack knows. */
async function unknownCodeRead(): Promise<void> {
	const type = vehicleTypes.get('brindle-marlow-16');
	if (!type) throw new Error('no minibus in the library');
	const { thread } = oneCodeRead(type, 'brake', '5ABC13', 0x2f).listen();
	for (const { kind, payload } of thread) await put(shop, kind as never, payload as never);
}

const PACK = CodePack.parse({
	format: 'jaldi-code-pack',
	version: 1,
	id: 'brindle-brakes',
	name: 'Brindle brakes',
	source: 'a binder',
	date: '2026-01-01',
	conditions: 'stated',
	maker: 'Brindle',
	definitions: [
		{ code: 'C1ABC', title: 'Wheel speed sensor rear left', group: 'wheel-speed', corner: 'rear-left' }
	]
});
const OPENED = { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'minibus', plate: 'TP 1' };
const LEAD_RENEWED = {
	title: 'Lead renewed',
	position: 'rear-left' as const,
	parts: [],
	temporary: false,
	note: '',
	does: { kind: 'renew-lead', place: 'rear-left' }
};
const timed = (minutes: number): PayloadOf<'test-step'> => ({
	test: 'fuse',
	place: 'F14',
	name: 'Look at the fuse',
	station: 'measure',
	from: 'suggested',
	how: 'done',
	seen: {},
	because: '',
	minutes
});
const loaded = () => loadCase(shop, shop.caseId);
const chanceAt = async (place: string): Promise<number> => {
	const reasoned = await reasonOf(shop, await loaded());
	if (!reasoned) throw new Error('nothing to reason about');
	const { model, belief } = reasoned.reasoning;
	return model.faults.reduce((sum, one, i) => sum + (one.place === place ? (belief.present[i] ?? 0) : 0), 0);
};

describe('a case on this server', () => {
	it('is projected once, until its thread grows', async () => {
		await unknownCodeRead();
		const first = await loaded();
		expect((await loaded()).view).toBe(first.view);
		expect(first.type?.id).toBe('brindle-marlow-16');
		await put(shop, 'note', { text: 'seen' });
		const after = await loaded();
		expect(after.view).not.toBe(first.view);
		expect(after.thread).toHaveLength(first.thread.length + 1);
	});

	it('has nothing reasoned anew by a note', async () => {
		await unknownCodeRead();
		const first = await reasonOf(shop, await loaded());
		await put(shop, 'note', { text: 'the customer waits' });
		expect((await reasonOf(shop, await loaded()))?.reasoning).toBe(first?.reasoning);
	});

	it('is read and reasoned in the words of a pack as soon as that is brought in, its thread as it was', async () => {
		await unknownCodeRead();
		const before = await loaded();
		const rearLeft = await chanceAt('rear-left');
		const outlook = await nextOf(shop, shop.caseId);
		const floorBefore = (await shop.cases.page(false, 1)).rows[0]?.summary.next;
		expect(before.view.codes[0]).toMatchObject({ title: null, corner: null });

		expect((await shop.codes.importPack(PACK, shop.ana)).ok).toBe(true);
		const after = await loaded();
		expect(after.thread).toEqual(before.thread);
		expect(after.view.codes[0]).toMatchObject({ title: 'Wheel speed sensor rear left', corner: 'rear-left' });
		expect(await chanceAt('rear-left')).toBeGreaterThan(rearLeft + 0.5);
		// What was worked out for the floor says that it rests on something else.
		expect((await knownHere(shop)).stamp).not.toBe(outlook.known);
		expect((await reasonPage(shop, { caseId: shop.caseId, upTo: null }))?.hypotheses[0]?.fault).toContain(
			'rear left'
		);

		// So does what the floor shows of it, though nobody has written anything.
		const [row] = (await shop.cases.page(false, 1)).rows;
		expect(row?.summary.next).toEqual(
			after.view.next && {
				station: after.view.next.station,
				title: after.view.next.title,
				why: after.view.next.why
			}
		);
		expect(row?.summary.next).not.toEqual(floorBefore);

		await shop.codes.removePack(PACK.id, shop.ana);
		expect(await chanceAt('rear-left')).toBeCloseTo(rearLeft, 9);
	});

	it('is reasoned anew when the shop decides to be surer, writes other odds, or has proven a repair', async () => {
		await unknownCodeRead();
		const stamps = [(await knownHere(shop)).stamp];
		await shop.settings.write('proving', 1, shop.ana);
		stamps.push((await knownHere(shop)).stamp);
		const book = await shop.reasonBooks.read();
		await shop.reasonBooks.write({ ...book, tests: { ...book.tests, fuse: 9 } }, shop.ana);
		stamps.push((await knownHere(shop)).stamp);
		await put(shop, 'repair', LEAD_RENEWED);
		expect((await knownHere(shop)).stamp).toBe(stamps[2]);
		await put(shop, 'signature', { statement: 'Released', verdict: 'Proven clear' });
		await shop.cases.refresh(shop.caseId);
		stamps.push((await knownHere(shop)).stamp);
		expect(new Set(stamps).size).toBe(4);
	});

	it('is not reasoned anew by what somebody does elsewhere, unless its tests take other minutes now', async () => {
		await unknownCodeRead();
		const first = (await knownHere(shop)).stamp;
		await put(shop, 'note', { text: 'elsewhere' });
		await put(shop, 'test-step', timed(7));
		// Once is no habit, and what takes as long as it did changes nothing.
		expect((await knownHere(shop)).stamp).toBe(first);
		await put(shop, 'test-step', timed(8));
		const second = await knownHere(shop);
		expect(second.stamp).not.toBe(first);
		expect(second.minutes).toEqual({ fuse: 8 });
		await put(shop, 'test-step', timed(8));
		expect((await knownHere(shop)).stamp).toBe(second.stamp);
	});
});

describe('an entry that is added', () => {
	const add = (payload: object, more: object = {}) =>
		addEntry(
			{ ...shop, heavy: inlineWork(shop) },
			{ id: ulid(), caseId: shop.caseId, kind: 'inspection', payload: payload as never, ...more },
			shop.ana
		);
	const gap = {
		inspection: 'gap',
		name: 'Gap',
		position: 'rear-left',
		result: 'good',
		found: [],
		gapMm: null,
		note: '',
		photos: [],
		proves: [],
		implicates: [],
		says: 'as it should be'
	};

	it('is refused in words where it is not whole, names what is not there, or photos that nobody sent', async () => {
		await put(shop, 'case-opened', OPENED);
		const words = async (payload: object) => {
			const added = await add(payload);
			return added.ok ? 'stored' : added.error;
		};
		expect(await words({})).toContain('payload');
		expect(await words({ ...gap, inspection: 'no-such-look' })).toContain('inspection');
		expect(await words({ ...gap, position: 'axle3-left' })).toContain('no wheel');
		expect(await words({ ...gap, photos: [{ id: ulid(), sha256: 'a'.repeat(64), caption: '' }] })).toContain(
			'photo'
		);
		expect((await loaded()).thread).toHaveLength(1);
	});

	it('stands at the moment of what it corrects', async () => {
		const first = await add(gap, { observedAt: '2026-05-01T08:00:00.000Z' });
		if (!first.ok) throw new Error(first.error);
		const second = await add(
			{ ...gap, result: 'bad' },
			{
				supersedes: { entryId: first.value.id, why: 'wrong wheel' },
				observedAt: '2026-05-02T08:00:00.000Z'
			}
		);
		expect(second.ok && second.value.observedAt).toBe('2026-05-01T08:00:00.000Z');
		expect((await loaded()).view.entries).toHaveLength(1);
	});
});

describe('the cases of one vehicle', () => {
	it('are found by its plate, however it is spaced, and by its number', async () => {
		const found = async (of: Parameters<typeof shop.cases.page>[2]) =>
			(await shop.cases.page(false, 1, of)).rows.map(({ id }) => id);
		for (const plate of ['TP 16', 'tp16', ' T P16 ']) expect(await found({ plate })).toEqual([shop.caseId]);
		expect(await found({ plate: 'TP 17' })).toEqual([]);
		expect(await found({ vin: 'WX0TP000000000016' })).toEqual([]);
		expect(await found({})).toEqual([shop.caseId]);
		expect((await shop.cases.page(true, 1, { plate: 'TP 16' })).total).toBe(0);
	});
});

describe('a shop with many cases', () => {
	const MANY = 60;
	const ids: string[] = [];
	beforeEach(async () => {
		ids.length = 0;
		for (let i = 0; i < MANY; i++) {
			const vehicle = await shop.vehicles.add({
				typeId: 'brindle-marlow-16',
				nickname: `bus ${String(i).padStart(3, '0')}`,
				plate: `TP ${1000 + i}`,
				vin: null,
				linkAddress: null,
				standInAddress: null
			});
			ids.push(await shop.cases.open(ulid(), vehicle.id));
		}
	});

	it('is paged by number, the closed ones from the newest, and beyond the last page is the last', async () => {
		const numbersOn = async (signed: boolean, page: number) =>
			(await shop.cases.page(signed, page)).rows.map(({ number }) => number);
		const open = [
			...(await numbersOn(false, 1)),
			...(await numbersOn(false, 2)),
			...(await numbersOn(false, 3))
		];
		expect(open).toHaveLength(MANY + 1);
		expect(open).toEqual([...open].sort());
		await shop.db.update(caseRecord).set({ signed: true });
		const closed = [
			...(await numbersOn(true, 1)),
			...(await numbersOn(true, 2)),
			...(await numbersOn(true, 3))
		];
		expect(closed).toEqual([...open].reverse());
		expect(await numbersOn(true, 99)).toEqual(await numbersOn(true, 3));
		expect(await shop.cases.page(false, 1)).toMatchObject({ rows: [], total: 0, page: 1, pages: 1 });
	});

	it('shows of a code the newest cases that had it', async () => {
		const had = { code: 'C0035', failureType: '13', moduleName: 'brake control', verdict: 'open' };
		await shop.db.insert(caseCode).values(ids.map((caseId) => ({ caseId, ...had })));
		const found = (await shop.cases.casesWith('C0035', 5)).map(({ id }) => id);
		expect(found).toEqual([...ids].reverse().slice(0, 5));
	});

	it('is found by a word that stands in all of them, the newest that have it', async () => {
		for (const id of ids.slice(0, 3)) await put(shop, 'note', { text: 'gravel' }, { caseId: id });
		for (const id of ids.slice(0, 3)) await shop.cases.refresh(id);
		const found = (await shop.cases.search('gravel', 2)).map(({ id }) => id);
		expect(found).toHaveLength(2);
		expect(ids.slice(0, 3)).toEqual(expect.arrayContaining(found));
	});

	it('asks for no more entries than came since when it counts what it learned', async () => {
		const before = await shop.trackRecord.stamp();
		await put(shop, 'test-step', {
			test: 'resistance',
			place: 'rear-left',
			name: 'Ohms',
			station: 'measure',
			from: 'own',
			how: 'done',
			seen: {},
			because: '',
			minutes: 6
		});
		expect(await shop.trackRecord.stamp()).toBe(before);
		expect(await shop.trackRecord.minutes()).toEqual({ resistance: { times: 1, mean: 6 } });
		// Counted on, and counted from the beginning by what is kept for that: the same.
		expect(await new TrackRecord(shop.db).minutes()).toEqual(await shop.trackRecord.minutes());
		expect(await new TrackRecord(shop.db).stamp()).toBe(before);
	});
});
