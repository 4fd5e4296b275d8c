import { copyFileSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createClient } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { databaseOf } from '../../care/dataFolder';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { storesOn } from '../stores';
import { damagedPages } from './damagedPages';
import { DatabaseHealth, troubleOf } from './health';
import { healthOf, openDatabase } from './open';

let shop: TestShop;
let folder: string;
beforeEach(async () => {
	shop = await openTestShop();
	folder = mkdtempSync(join(tmpdir(), 'jaldi-health-'));
});
afterEach(() => {
	shop.close();
	rmSync(folder, { recursive: true });
});

const note = (of: TestShop, words: string) => put(of, 'note', { text: words });
const refused = (work: Promise<unknown>) =>
	work.then(
		() => null,
		(error: unknown) => troubleOf(error)
	);

describe('the place a database lies in', () => {
	it('that is full refuses what is written with a word for it, keeps what was, and takes more once there is room', async () => {
		const { rows } = await shop.db.run(sql`PRAGMA page_count`);
		await note(shop, 'before');
		await shop.db.run(sql.raw(`PRAGMA max_page_count = ${Number(rows[0]?.[0]) + 2}`));
		const long = 'x'.repeat(9_000);
		let full: unknown = null;
		for (let i = 0; i < 20 && full === null; i++) full = await refused(note(shop, long));
		expect(full).toBe('full');
		expect(healthOf(shop.db).state()?.kind).toBe('full');
		const whole = (await shop.threads.read(shop.caseId)).length;
		await shop.threads.check(shop.caseId);
		await shop.db.run(sql`PRAGMA max_page_count = 1000000`);
		await note(shop, long);
		expect(healthOf(shop.db).state()).toBeNull();
		expect(await shop.threads.read(shop.caseId)).toHaveLength(whole + 1);
	});

	it('with a damaged page says so; what can be read is read, and nothing more is written', async () => {
		for (let i = 0; i < 60; i++) await note(shop, `note ${i} ${'x'.repeat(3_000)}`);
		await shop.db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
		const file = join(folder, 'damaged.db');
		copyFileSync(databaseOf(shop.folder), file);
		const bytes = readFileSync(file);
		// The head of a page in the middle, where the notes are.
		const page = 4096 * Math.floor(bytes.length / 4096 - 10);
		bytes.fill(0xa5, page, page + 200);
		writeFileSync(file, bytes);
		const db = await openDatabase(`file:${file}`);
		const stores = storesOn(db, 'http://127.0.0.1:1');
		expect(await damagedPages(stores, null)).not.toBeNull();
		expect(await damagedPages(shop, null)).toBeNull();
		healthOf(db).found('damaged');
		expect(await refused(stores.settings.write('proving', 1, shop.ana))).toBe('damaged');
		expect(await stores.settings.read('proving')).toBe(0.8);
		// Reading well, later, mends nothing: the file is as it is.
		expect(healthOf(db).state()?.kind).toBe('damaged');
		db.$client.close();
	});

	it('holds a file that is no database: it is refused with a word for it and left as it is', async () => {
		const file = join(folder, 'other.db');
		writeFileSync(file, 'this is a letter, not a database. '.repeat(400));
		expect(await refused(openDatabase(`file:${file}`))).toBe('damaged');
		expect(readFileSync(file, 'utf8')).toContain('this is a letter');
	});

	it('where a step of bringing it up to date fails half way is as it was', async () => {
		const { rows } = await shop.db.run(sql`SELECT COUNT(*) FROM __drizzle_migrations`);
		await shop.db.run(
			sql`DELETE FROM __drizzle_migrations WHERE created_at = (SELECT MAX(created_at) FROM __drizzle_migrations)`
		);
		// Of the newest step the first two tables can be made, and the third is in the way.
		await shop.db.run(sql`DROP TABLE admin_act`);
		await shop.db.run(sql`DROP TABLE api_token`);
		const file = join(folder, 'jaldi.db');
		await shop.db.run(sql.raw(`VACUUM INTO '${file}'`));
		await expect(openDatabase(`file:${file}`)).rejects.toThrow();
		const client = createClient({ url: `file:${file}` });
		const tables = (await client.execute('SELECT name FROM sqlite_master')).rows.map((row) => row.name);
		expect(tables).not.toContain('admin_act');
		const [steps] = (await client.execute('SELECT COUNT(*) AS n FROM __drizzle_migrations')).rows;
		expect(Number(steps?.n)).toBe(Number(rows[0]?.[0]) - 1);
		client.close();
	});

	it('without its write-ahead log is a state that was, whole: a thread as far as it goes is unbroken', async () => {
		await note(shop, 'in the file');
		await shop.db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
		await note(shop, 'only in the log');
		expect(statSync(`${databaseOf(shop.folder)}-wal`).size).toBeGreaterThan(0);
		const file = join(folder, 'jaldi.db');
		copyFileSync(databaseOf(shop.folder), file);
		const db = await openDatabase(`file:${file}`);
		const stores = storesOn(db, 'http://127.0.0.1:1');
		await stores.threads.check(shop.caseId);
		expect((await stores.threads.read(shop.caseId)).map(({ payload }) => payload)).toEqual([
			{ text: 'in the file' }
		]);
		expect(await damagedPages(stores, null)).toBeNull();
		const added = await stores.threads.append(
			{
				id: ulid(),
				caseId: shop.caseId,
				kind: 'note',
				version: 1,
				observedAt: new Date().toISOString(),
				payload: { text: 'goes on' },
				supersedes: null
			} as never,
			shop.ana
		);
		expect(added.ok).toBe(true);
		db.$client.close();
	});
});

describe('what is known of it', () => {
	const error = (code: string) => Object.assign(new Error(code), { code });

	it('is told apart from errors of another kind, through whatever wraps them', () => {
		expect(troubleOf(new Error('query failed', { cause: error('SQLITE_FULL') }))).toBe('full');
		expect(troubleOf(error('SQLITE_CONSTRAINT'))).toBeNull();
		expect(troubleOf(error('constructor'))).toBeNull();
		expect(troubleOf('SQLITE_FULL')).toBeNull();
	});

	it('goes when something was written, unless the file itself is damaged', () => {
		const told: unknown[] = [];
		const health = new DatabaseHealth(() => new Date('2026-12-01T10:00:00Z'));
		health.follow((trouble) => told.push(trouble?.kind ?? null));
		health.failed(error('SQLITE_FULL'));
		health.failed(error('SQLITE_FULL'));
		health.wrote();
		health.failed(error('SQLITE_IOERR'));
		health.failed(error('SQLITE_CORRUPT'));
		health.wrote();
		health.failed(error('SQLITE_FULL'));
		expect(told).toEqual(['full', null, 'out-of-reach', 'damaged']);
		expect(() => health.beforeWriting()).toThrow('damaged');
	});
});
