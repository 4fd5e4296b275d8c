import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { hashToCome, type Recorded } from './recorded';
import { recordedAt, RECORDED_BY } from '../case/entries/recordedHeaders';
import { Sender } from './sender';
import { WaitingStore } from './waitingStore';

/** A server as tablets see it: what it has stored, in what order, and how it answers now. */
class Server {
	readonly stored: { id: string; by: string; at: string; body: string }[] = [];
	state: 'here' | 'away' | 'answer-lost' | 'busy' | 'signed-out' | 'elsewhere' | 'hangs' = 'here';
	readonly refuses = new Map<string, number>();
	release: (() => void) | null = null;

	readonly fetch: typeof fetch = async (path, init) => {
		if (this.state === 'hangs') await new Promise<void>((resolve) => (this.release = resolve));
		if (this.state === 'away') throw new TypeError('no network');
		if (this.state === 'busy') return Response.json({ message: 'in a moment' }, { status: 503 });
		if (this.state === 'signed-out') return Response.json({ message: 'Sign in first.' }, { status: 401 });
		if (this.state === 'elsewhere') return new Response('<h1>Welcome to this network</h1>');
		const headers = new Headers(init?.headers);
		const body = String(init?.body);
		const id = /\/([^/]+)$/.exec(String(path))?.[1] ?? '';
		const status = this.refuses.get(id);
		if (status) return Response.json({ message: `no ${id}`, signed: status === 409 }, { status });
		if (!this.stored.some((one) => one.id === id))
			this.stored.push({
				id,
				by: headers.get(RECORDED_BY) ?? '',
				at: recordedAt(headers, new Date(clock)),
				body
			});
		if (this.state === 'answer-lost') throw new TypeError('the network went away');
		return Response.json({ id, sha256: `hash of ${id}` });
	};
	get ids(): string[] {
		return this.stored.map(({ id }) => id);
	}
}

const note = (id: string, body = `{"note":"${id}"}`): Recorded => ({
	id,
	caseId: 'case',
	what: 'Note',
	path: `/e/${id}`,
	type: 'application/json',
	body
});

let server: Server;
let names = 0;
let name = '';
const opened: WaitingStore[] = [];
let me: { id: string; name: string } | null = null;
/** Resolves when nobody waits any longer. */
let impatient = new Promise<undefined>(() => undefined);
let clock = Date.parse('2026-03-02T10:00:00Z');

/** A tab, or the browser after a crash: the same place on this device, nothing in its memory. */
function tab(): { store: WaitingStore; sender: Sender } {
	const store = new WaitingStore(name);
	opened.push(store);
	let turn: Promise<unknown> = Promise.resolve();
	const sender = new Sender(store, {
		who: () => me,
		fetch: server.fetch,
		read: (text) => JSON.parse(text) as unknown,
		alone: (work) => {
			const mine = turn.then(work);
			turn = mine.catch(() => undefined);
			return mine;
		},
		now: () => clock,
		rest: () => impatient
	});
	return { store, sender };
}

beforeEach(() => {
	server = new Server();
	name = `test-${names++}`;
	me = { id: 'ana', name: 'Ana' };
	impatient = new Promise(() => undefined);
	clock = Date.parse('2026-03-02T10:00:00Z');
});
afterEach(() => opened.splice(0).forEach((store) => store.close()));
const waiting = async (store: WaitingStore) => (await store.all()).map(({ id }) => id);

describe('what is recorded while a server may be out of reach', () => {
	it('goes at once where the server answers, and nothing waits', async () => {
		const { store, sender } = tab();
		expect(await sender.record(note('a'))).toMatchObject({ state: 'arrived' });
		expect(server.ids).toEqual(['a']);
		expect(await waiting(store)).toEqual([]);
	});

	it('waits in its order and goes in it, with the time it was recorded at, after the browser was killed', async () => {
		server.state = 'away';
		const before = tab();
		for (const id of ['a', 'b', 'c']) {
			expect(await before.sender.record(note(id))).toEqual({ state: 'waits' });
			clock += 60_000;
		}
		before.store.close();
		server.state = 'here';
		const after = tab();
		expect(await waiting(after.store)).toEqual(['a', 'b', 'c']);
		await after.sender.flush();
		expect(server.stored.map(({ id, at }) => [id, at])).toEqual([
			['a', '2026-03-02T10:00:00.000Z'],
			['b', '2026-03-02T10:01:00.000Z'],
			['c', '2026-03-02T10:02:00.000Z']
		]);
		expect(await waiting(after.store)).toEqual([]);
	});

	it('is stored once where only the answer was lost', async () => {
		server.state = 'answer-lost';
		const { store, sender } = tab();
		expect(await sender.record(note('a'))).toEqual({ state: 'waits' });
		server.state = 'here';
		await sender.flush();
		expect(server.ids).toEqual(['a']);
		expect(await waiting(store)).toEqual([]);
	});

	it('does not overtake what waits before it', async () => {
		server.state = 'busy';
		const { sender } = tab();
		await sender.record(note('a'));
		server.state = 'here';
		await sender.record(note('b'));
		await sender.flush();
		expect(server.ids).toEqual(['a', 'b']);
	});

	it('is not tried while it is known to be in vain, and nobody waits for it', async () => {
		server.state = 'away';
		const { sender } = tab();
		await sender.record(note('a'));
		expect(sender.hindered).toBe('away');
		server.state = 'hangs';
		expect(await sender.record(note('b'))).toEqual({ state: 'waits' });
		await vi.waitFor(() => expect(server.release).not.toBeNull());
		server.state = 'here';
		server.release?.();
		await sender.flush();
		expect(server.ids).toEqual(['a', 'b']);
	});

	it('is not waited for behind something that takes long, and goes after it', async () => {
		const { sender } = tab();
		server.state = 'hangs';
		const large = sender.record(note('large'));
		await vi.waitFor(() => expect(server.release).not.toBeNull());
		let tired: () => void = () => undefined;
		impatient = new Promise((resolve) => (tired = () => resolve(undefined)));
		const small = sender.record(note('small'));
		tired();
		expect(await small).toEqual({ state: 'waits' });
		expect(server.ids).toEqual([]);
		server.state = 'here';
		server.release?.();
		expect(await large).toMatchObject({ state: 'arrived' });
		await sender.flush();
		expect(server.ids).toEqual(['large', 'small']);
	});

	it('is not taken for stored by another’s page in the server’s place', async () => {
		server.state = 'elsewhere';
		const { store, sender } = tab();
		expect(await sender.record(note('a'))).toEqual({ state: 'waits' });
		expect(await waiting(store)).toEqual(['a']);
	});

	it('goes under the name of whoever recorded it, and waits for them where another has signed in', async () => {
		server.state = 'away';
		const { store, sender } = tab();
		await sender.record(note('a'));
		me = { id: 'ben', name: 'Ben' };
		server.state = 'here';
		await sender.record(note('b'));
		await sender.flush();
		expect(server.stored.map(({ id, by }) => [id, by])).toEqual([['b', 'ben']]);
		expect(await waiting(store)).toEqual(['a']);
		me = { id: 'ana', name: 'Ana' };
		await sender.flush();
		expect(server.stored.map(({ id, by }) => [id, by])).toEqual([
			['b', 'ben'],
			['a', 'ana']
		]);
	});

	it('waits where nobody is signed in any more', async () => {
		server.state = 'signed-out';
		const { store, sender } = tab();
		expect(await sender.record(note('a'))).toEqual({ state: 'waits' });
		expect(sender.hindered).toBe('shut');
		server.state = 'here';
		await sender.flush();
		expect(sender.hindered).toBeNull();
		expect(await waiting(store)).toEqual([]);
	});

	it('stays with the reason where it is refused later, lets the others pass, and can be sent again or let go', async () => {
		server.state = 'away';
		const { store, sender } = tab();
		for (const id of ['a', 'b', 'c']) await sender.record(note(id));
		server.state = 'here';
		server.refuses.set('a', 409).set('b', 403);
		await sender.flush();
		expect(server.ids).toEqual(['c']);
		expect((await store.all()).map(({ id, refused, signed }) => [id, refused, signed])).toEqual([
			['a', 'no a', true],
			['b', 'no b', false]
		]);
		server.refuses.clear();
		const [a, b] = await store.all();
		await store.again(a?.key ?? '');
		await store.forget(b?.key ?? '');
		await sender.flush();
		expect(server.ids).toEqual(['c', 'a']);
		expect(await waiting(store)).toEqual([]);
	});

	it('is handed back to whoever stands before it where it is refused at once', async () => {
		server.refuses.set('a', 400);
		const { store, sender } = tab();
		expect(await sender.record(note('a'))).toMatchObject({ state: 'refused', why: 'no a' });
		expect(await waiting(store)).toEqual([]);
	});

	it('names a photo by the hash that the server gave it, also after a crash between the two', async () => {
		server.state = 'away';
		const before = tab();
		const photo = '01JNB3A0000000000000000000';
		await before.sender.record({ ...note(photo), type: 'image/jpeg', body: new Uint8Array([1, 2, 3]) });
		await before.sender.record(
			note('look', JSON.stringify({ photos: [{ id: photo, sha256: hashToCome(photo) }] }))
		);
		server.state = 'here';
		server.refuses.set('look', 503);
		await before.sender.flush();
		expect(server.ids).toEqual([photo]);
		before.store.close();
		server.refuses.clear();
		await tab().sender.flush();
		expect(JSON.parse(server.stored[1]?.body ?? '')).toEqual({
			photos: [{ id: photo, sha256: `hash of ${photo}` }]
		});
	});

	it('keeps a file and the entry that speaks of it, which share an id', async () => {
		server.state = 'away';
		const { store, sender } = tab();
		await sender.record({ ...note('log'), path: '/file/log', method: 'PUT' });
		await sender.record(note('log'));
		expect(await store.all()).toHaveLength(2);
	});

	it('never takes the place of another under its id, and kept again as it is it stands once', async () => {
		server.state = 'away';
		const { store, sender } = tab();
		await sender.record(note('a', 'one'));
		await sender.record(note('a', 'one'));
		await expect(sender.record(note('a', 'two'))).rejects.toThrow('load the page again');
		expect(await Promise.all((await store.all()).map(({ key }) => store.bodyOf(key)))).toEqual(['one']);
	});

	it('goes once from two tabs that send at the same moment', async () => {
		server.state = 'away';
		const [one, two] = [tab(), tab()];
		await one.sender.record(note('a'));
		await two.sender.record(note('b'));
		server.state = 'here';
		await Promise.all([one.sender.flush(), two.sender.flush()]);
		expect(server.ids).toEqual(['a', 'b']);
		expect(await waiting(one.store)).toEqual([]);
	});
});
