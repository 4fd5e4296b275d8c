import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { pino } from 'pino';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ENTRY_VERSION } from '../../case/entries/entry';
import { loadCase } from '../cases/access';
import { cautionsHere } from '../cases/cautionsHere';
import { knownHere } from '../cases/knownHere';
import { Peers } from '../peers';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { DatabaseTrouble } from './health';
import { startLibsqlStandIn, type LibsqlStandIn } from './libsqlStandIn.fixture';
import { healthOf, openDatabase } from './open';
import { peer } from './schema';
import { Threads } from './threads';
import { VehicleHolds } from './vehicleHolds';

let folder: string;
let remote: LibsqlStandIn;
let shop: TestShop;
const TOKEN = 'a-token-of-a-chain';
const there = (port = 0) => startLibsqlStandIn(join(folder, 'there.db'), { token: TOKEN, port });

beforeEach(async () => {
	folder = mkdtempSync(join(tmpdir(), 'jaldi-remote-'));
	remote = await there();
	shop = await openTestShop({ url: remote.url, token: TOKEN });
});
afterEach(async () => {
	shop.close();
	await remote.close();
	rmSync(folder, { recursive: true });
});

const note = (text: string, id = ulid()) =>
	({
		id,
		caseId: shop.caseId,
		kind: 'note',
		version: ENTRY_VERSION,
		observedAt: new Date().toISOString(),
		payload: { text },
		supersedes: null
	}) as const;

describe('a database on another machine', () => {
	it('is brought up to date and takes a thread like a file, and only from whoever has its token', async () => {
		const first = await put(shop, 'note', { text: 'far away' });
		expect((await shop.threads.read(shop.caseId)).map(({ id }) => id)).toEqual([first]);
		expect((await shop.threads.check(shop.caseId)).intact).toBe(true);
		await expect(openDatabase(remote.url, 'another')).rejects.toThrow();
	});

	it('is asked once for all that is asked in one moment; what is wrong among it fails alone', async () => {
		await put(shop, 'note', { text: 'far away' });
		const before = remote.requests();
		const all = await Promise.all([
			shop.threads.headSeq(shop.caseId),
			shop.settings.read('proving'),
			shop.settings.read('closesAtHour')
		]);
		expect(all).toEqual([1, 0.8, 17]);
		expect(remote.requests() - before).toBe(1);
		const [good, wrong] = await Promise.allSettled([
			shop.threads.headSeq(shop.caseId),
			shop.db.run(sql`SELECT nothing FROM nowhere`)
		]);
		expect(good).toEqual({ status: 'fulfilled', value: 1 });
		expect(wrong.status).toBe('rejected');
	});

	it('is asked a few times for a page, however much stands on it', async () => {
		await put(shop, 'complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
		const page = () =>
			Promise.all([
				loadCase(shop, shop.caseId),
				knownHere(shop),
				cautionsHere(shop, null),
				shop.reasonBooks.read()
			]);
		await page();
		const before = remote.requests();
		await page();
		expect(remote.requests() - before).toBeLessThanOrEqual(2);
	});

	it('that is out of reach refuses with a sentence, and goes on by itself once it is back', async () => {
		await put(shop, 'note', { text: 'before' });
		const port = Number(new URL(remote.url).port);
		await remote.close();
		await expect(shop.threads.headSeq(shop.caseId)).rejects.toThrow();
		const draft = note('while it is away');
		const refused = await shop.threads.append(draft, shop.ana).catch((error: unknown) => error);
		expect((refused as Error).cause ?? refused).toBeInstanceOf(DatabaseTrouble);
		expect(healthOf(shop.db).state()?.kind).toBe('unreachable');
		remote = await there(port);
		expect((await shop.threads.append(draft, shop.ana)).ok).toBe(true);
		expect(healthOf(shop.db).state()).toBeNull();
		expect(await shop.threads.headSeq(shop.caseId)).toBe(2);
	});

	it('takes what two servers write at once on one thread, one after the other, and each tells the other’s people', async () => {
		const db = await openDatabase(remote.url, TOKEN);
		const threads = new Threads(db);
		const log = pino({ enabled: false });
		const peers = new Peers(db, { log, origin: 'http://127.0.0.1:2', threads }, { aliveMs: 50, newsMs: 20 });
		await peers.begin(() => Promise.resolve());
		const heard: number[] = [];
		threads.listen(shop.caseId, (seq) => heard.push(seq));
		const texts = Array.from({ length: 12 }, (_, i) => `note ${i}`);
		const stored = await Promise.all(
			texts.map((text, i) => (i % 2 ? threads : shop.threads).append(note(text), shop.ana))
		);
		expect(stored.every(({ ok }) => ok)).toBe(true);
		// Whoever wrote reads what was written, whichever server is asked.
		for (const one of [threads, shop.threads]) {
			expect(await one.read(shop.caseId)).toHaveLength(12);
			expect((await one.check(shop.caseId)).intact).toBe(true);
		}
		await vi.waitFor(() => expect(heard.at(-1)).toBe(12));
		// Nothing is told twice, whoever wrote it.
		expect(new Set(heard).size).toBe(heard.length);
		await peers.end();
		db.$client.close();
	});

	it('lets one server at a vehicle at a time, and the next when that one has died', async () => {
		const onDeath = vi.fn(() => Promise.resolve());
		const log = pino({ enabled: false });
		const told = { log, threads: shop.threads };
		const [one, other] = ['http://127.0.0.1:2', 'http://127.0.0.1:3'].map(
			(origin) => new Peers(shop.db, { ...told, origin }, { aliveMs: 20, newsMs: 1_000 })
		) as [Peers, Peers];
		await one.begin(onDeath);
		// It lives by its row alone: nobody keeps it alive.
		await shop.db
			.insert(peer)
			.values({ id: other.id, origin: 'http://127.0.0.1:3', seenAt: sql`unixepoch()` });
		expect(await one.others()).toEqual(['http://127.0.0.1:3']);
		const [mine, theirs] = [new VehicleHolds(shop.db, one.id), new VehicleHolds(shop.db, other.id)];
		expect(await theirs.take('10.0.0.9:1', ulid(), 'Bram')).toBeNull();
		expect(await mine.take('10.0.0.9:1', ulid(), 'Ana')).toBe('Bram');
		await vi.waitFor(async () => {
			expect(await mine.freeDead()).toBe(0);
			expect(onDeath).not.toHaveBeenCalled();
		});
		await shop.db
			.update(peer)
			.set({ seenAt: sql`unixepoch() - 100` })
			.where(sql`id = ${other.id}`);
		await vi.waitFor(() => expect(onDeath).toHaveBeenCalledOnce());
		expect(await mine.freeDead()).toBe(1);
		expect(await mine.take('10.0.0.9:1', ulid(), 'Ana')).toBeNull();
		// What it could not let go is its own still.
		expect(await mine.take('10.0.0.9:1', ulid(), 'Ana')).toBeNull();
		await one.end();
	});
});
