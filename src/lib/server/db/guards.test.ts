import { eq } from 'drizzle-orm';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EntryDraft, EntryKind, PayloadOf } from '../../case/entries/entry';
import { ENTRY_VERSION } from '../../case/entries/entry';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { Captures, wholePieces } from './captures';
import { capture, captureChunk, caseRecord, entry, linkJob, photo } from './schema';
import { Threads } from './threads';

let shop: TestShop;
let captures: Captures;
let otherCase: string;

const draft = <K extends EntryKind>(kind: K, payload: PayloadOf<K>, caseId = shop.caseId, id = ulid()) =>
	({
		id,
		caseId,
		kind,
		version: ENTRY_VERSION,
		observedAt: new Date().toISOString(),
		payload,
		supersedes: null
	}) as EntryDraft;
const opening = (): PayloadOf<'case-opened'> => ({
	vehicleId: 'v',
	typeId: 'brindle-marlow-16',
	name: 'minibus',
	plate: 'TP 16'
});
const signature = { statement: 'Checked.', verdict: 'Proven clear' };
const samples = (from = 0) => ({
	timeS: Float64Array.from([0, 1, 2]),
	channels: new Map([['vehicle', Float64Array.from([from, from + 1, from + 2])]])
});
const newCapture = (id: string, caseId = shop.caseId) => ({
	id,
	caseId,
	authorId: shop.ana.id,
	name: 'road',
	startedAt: new Date().toISOString()
});
/** The refusal of the database itself, in the words of its trigger. */
const refusal = (work: Promise<unknown>) =>
	work.then(
		() => 'nothing refused it',
		(error: Error & { cause?: Error }) => `${error.message} ${error.cause?.message ?? ''}`
	);

beforeEach(async () => {
	shop = await openTestShop();
	captures = new Captures(shop.db);
	const [vehicle] = await shop.vehicles.newest();
	otherCase = await shop.cases.open(ulid(), vehicle?.id ?? '');
});
afterEach(() => shop.close());

describe('one thread, one vehicle, one beginning', () => {
	it('begins once, whoever asks, also past this code', async () => {
		await put(shop, 'case-opened', opening());
		const again = await shop.threads.append(draft('case-opened', opening()), shop.ana);
		expect(again).toMatchObject({ ok: false, error: { kind: 'begun' } });
		const [first] = await shop.db.select().from(entry);
		if (!first) throw new Error('no entry');
		const forged = shop.db.insert(entry).values({ ...first, id: ulid(), seq: 2 });
		expect(await refusal(forged)).toContain('a thread begins once');
	});

	it('a case has a ULID, and stays with its vehicle', async () => {
		const [vehicle] = await shop.vehicles.newest();
		expect(await refusal(shop.cases.open('anything', vehicle?.id ?? ''))).toContain('ULID');
		const second = await shop.vehicles.add({
			typeId: 'velmora-skiff',
			nickname: 'van',
			plate: 'TP 2',
			vin: null,
			linkAddress: null,
			standInAddress: null
		});
		const moved = shop.db
			.update(caseRecord)
			.set({ vehicleId: second.id })
			.where(eq(caseRecord.id, shop.caseId));
		expect(await refusal(moved)).toContain('one vehicle');
		expect((await shop.threads.append(draft('note', { text: 'x' }, ulid()), shop.ana)).ok).toBe(false);
	});

	it('grows by nothing once it is broken, and is known as broken without being read', async () => {
		for (const text of ['one', 'two', 'three']) await put(shop, 'note', { text });
		await shop.db.$client.execute('DROP TRIGGER entry_never_changes');
		await shop.db.$client.execute(`UPDATE entry SET payload = '{"text":"2"}' WHERE seq = 2`);
		const anew = new Threads(shop.db);
		const refused = await anew.append(draft('signature', signature), shop.ana);
		expect(refused).toMatchObject({ ok: false, error: { kind: 'broken' } });
		expect((await shop.cases.find(shop.caseId))?.chainBroken).toContain('entry 2 was changed');
		// The server that had read it before learns it by looking at the disk, and then adds nothing either.
		expect(await shop.threads.check(shop.caseId)).toMatchObject({ intact: false, seq: 2 });
		expect((await shop.threads.append(draft('note', { text: 'x' }), shop.ana)).ok).toBe(false);
	});

	it('is signed only over what the lead has looked at', async () => {
		await put(shop, 'note', { text: 'seen' });
		const [head] = await shop.threads.read(shop.caseId);
		await put(shop, 'note', { text: 'added meanwhile' });
		const late = await shop.threads.append(draft('signature', signature), shop.ana, {
			afterHead: head?.hash ?? ''
		});
		expect(late).toMatchObject({ ok: false, error: { kind: 'moved' } });
		const now = (await shop.threads.read(shop.caseId)).at(-1)?.hash ?? '';
		expect((await shop.threads.append(draft('signature', signature), shop.ana, { afterHead: now })).ok).toBe(
			true
		);
	});
});

describe('what lies beside a thread', () => {
	it('is reached through its own case alone', async () => {
		const id = ulid();
		expect((await captures.keep(newCapture(id), wholePieces(samples()))).ok).toBe(true);
		const strange = { caseId: otherCase, id };
		expect(await captures.read(strange)).toBeNull();
		expect((await captures.keep(newCapture(id, otherCase), wholePieces(samples(9)))).ok).toBe(false);
		expect((await captures.begin(newCapture(id, otherCase))).ok).toBe(false);
		await captures.forget(strange);
		await captures.setMarks(strange, [{ atS: 1, label: 'x' }]);
		await captures.close(strange);
		expect(await refusal(captures.finish(strange, wholePieces(samples(9))))).toContain('no recording');
		const kept = await captures.read({ caseId: shop.caseId, id });
		expect([...(kept?.channels.get('vehicle') ?? [])]).toEqual([0, 1, 2]);
	});

	it('is never taken away under the entry that speaks of it; what has none gives way', async () => {
		const id = ulid();
		const own = { caseId: shop.caseId, id };
		await captures.keep(newCapture(id), wholePieces(samples()));
		// A server died before the entry was written: the same file sent again stands in its place.
		expect((await captures.keep(newCapture(id), wholePieces(samples(5)))).ok).toBe(true);
		await put(shop, 'note', { text: 'speaks of it' }, { id });
		await captures.forget(own);
		expect((await captures.keep(newCapture(id), wholePieces(samples(7)))).ok).toBe(false);
		expect([...((await captures.read(own))?.channels.get('vehicle') ?? [])]).toEqual([5, 6, 7]);
	});

	it('cannot be changed, added or taken away in the database once the case is signed', async () => {
		const id = ulid();
		await captures.keep(newCapture(id), wholePieces(samples()));
		const picture = {
			id: ulid(),
			caseId: shop.caseId,
			authorId: shop.ana.id,
			takenInAt: '',
			sha256: '',
			width: 1,
			height: 1,
			bytes: Buffer.from([1])
		};
		await shop.db.insert(photo).values(picture);
		await put(shop, 'signature', signature);
		const piece = { captureId: id, seq: 9, bytes: Buffer.from([0]) };
		for (const work of [
			shop.db.delete(capture),
			shop.db.update(capture).set({ name: 'other' }),
			shop.db.insert(capture).values(newCapture(ulid())),
			shop.db.delete(captureChunk),
			shop.db.insert(captureChunk).values(piece),
			shop.db.delete(photo),
			shop.db.insert(photo).values({ ...picture, id: ulid() }),
			shop.db.insert(linkJob).values({
				id: ulid(),
				caseId: shop.caseId,
				kind: 'clear',
				authorId: shop.ana.id,
				startedAt: '',
				draft: ''
			})
		])
			expect(await refusal(work)).toContain('this case is signed');
		expect(await refusal(shop.db.update(captureChunk).set({ seq: 3 }))).toContain('never changed');
		expect(await refusal(shop.db.update(photo).set({ width: 2 }))).toContain('never changed');
	});

	it('a case is not signed while something is recorded or asked on it', async () => {
		const id = ulid();
		await captures.begin(newCapture(id));
		const refused = await shop.threads.append(draft('signature', signature), shop.ana);
		expect(refused).toMatchObject({ ok: false, error: { kind: 'busy' } });
		await captures.finish({ caseId: shop.caseId, id }, wholePieces(samples()));
		expect((await shop.threads.append(draft('signature', signature), shop.ana)).ok).toBe(true);
	});
});
