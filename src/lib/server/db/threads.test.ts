import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ulid } from 'ulid';
import type { EntryDraft } from '../../case/entries/entry';
import { checkChain } from '../../case/thread/hashChain';
import { openTestShop, type TestShop } from '../shop.fixture';
import type { Cases } from './cases';
import type { Database } from './open';
import { Threads, type Author } from './threads';
import { Vehicles } from './vehicles';

let shop: TestShop;
let db: Database;
let threads: Threads;
let cases: Cases;
let ana: Author;
let caseId: string;

beforeEach(async () => {
	shop = await openTestShop();
	({ db, threads, cases, ana, caseId } = shop);
});
afterEach(() => shop.close());

const note = (text: string, change: Partial<EntryDraft> = {}): EntryDraft =>
	({
		id: ulid(),
		caseId,
		kind: 'note',
		version: 1,
		observedAt: '2026-11-24T09:00:00.000Z',
		supersedes: null,
		payload: { text },
		...change
	}) as EntryDraft;

describe('a thread on disk', () => {
	it('keeps every entry of two hundred written at once by two people, in one unbroken chain', async () => {
		const other = new Threads(db);
		const writing = Array.from({ length: 200 }, (_, i) =>
			(i % 2 ? threads : other).append(note(`entry ${i}`), ana)
		);
		const results = await Promise.all(writing);
		expect(results.every((r) => r.ok)).toBe(true);
		const thread = await threads.read(caseId);
		expect(thread).toHaveLength(200);
		expect(new Set(thread.map((e) => e.kind === 'note' && e.payload.text)).size).toBe(200);
		expect(checkChain(thread)).toEqual({ intact: true });
	});

	it('stores an entry sent twice once, and refuses the same id with other words', async () => {
		const draft = note('the lamp came on at the ramp');
		const first = await threads.append(draft, ana);
		const second = await threads.append({ ...draft, observedAt: '2026-11-24T09:05:00.000Z' }, ana);
		expect(second).toEqual(first);
		expect(await threads.append({ ...draft, payload: { text: 'other' } } as EntryDraft, ana)).toMatchObject({
			ok: false,
			error: { kind: 'taken' }
		});
		expect(await threads.headSeq(caseId)).toBe(1);
	});

	it('cannot be rewritten or shortened, even with plain SQL', async () => {
		await threads.append(note('as it was'), ana);
		await expect(db.$client.execute("UPDATE entry SET payload = '{}'")).rejects.toThrow(/never changed/);
		await expect(db.$client.execute('DELETE FROM entry')).rejects.toThrow(/never removed/);
	});

	it('shows where somebody changed the file behind its back', async () => {
		for (const text of ['one', 'two', 'three']) await threads.append(note(text), ana);
		await db.$client.execute('DROP TRIGGER entry_never_changes');
		await db.$client.execute(`UPDATE entry SET payload = '{"text":"2"}' WHERE seq = 2`);
		expect(await threads.check(caseId)).toEqual({
			intact: false,
			seq: 2,
			reason: 'entry 2 was changed after it was written'
		});
	});

	it('takes a correction only for an entry of the same kind on the same thread', async () => {
		const first = note('rear left');
		await threads.append(first, ana);
		const correction = note('rear right', { supersedes: { entryId: first.id, why: 'mixed up' } });
		expect((await threads.append(correction, ana)).ok).toBe(true);
		const stray = note('x', { supersedes: { entryId: ulid(), why: 'y' } });
		expect(await threads.append(stray, ana)).toMatchObject({ ok: false, error: { kind: 'no-target' } });
	});

	it('is closed by a signature', async () => {
		const signature = note('', {
			kind: 'signature',
			payload: { statement: 'Proven.', verdict: 'Proven clear' }
		} as never);
		expect((await threads.append(signature, ana)).ok).toBe(true);
		expect(await threads.append(note('one more'), ana)).toMatchObject({
			ok: false,
			error: { kind: 'sealed' }
		});
		expect((await threads.append(signature, ana)).ok).toBe(true);
	});

	it('tells listeners in this process of growth, and stops when told', async () => {
		const heard: number[] = [];
		const stop = threads.listen(caseId, (seq) => heard.push(seq));
		await threads.append(note('a'), ana);
		await threads.append(note('b'), ana);
		stop();
		await threads.append(note('c'), ana);
		expect(heard).toEqual([1, 2]);
	});
});

describe('the floor', () => {
	it('shows what the thread says, also after an append that nobody announced', async () => {
		await threads.append(note('x'), ana);
		const { rows, total } = await cases.page(false, 1);
		expect(total).toBe(1);
		expect(rows[0]?.number).toBe('TP-0401');
		expect(rows[0]?.summary.next?.title).toBe('Write down what the customer says');
	});

	it('opens a case asked for twice only once', async () => {
		const vehicles = await new Vehicles(db).newest();
		const id = ulid();
		await cases.open(id, vehicles[0]?.id ?? '');
		await cases.open(id, vehicles[0]?.id ?? '');
		expect((await cases.page(false, 1)).total).toBe(2);
	});
});
