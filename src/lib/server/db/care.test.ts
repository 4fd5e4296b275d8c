import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import {
	cpSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	openSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	utimesSync,
	writeFileSync,
	writeSync,
	closeSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, backupsIn } from '../../care/backUp';
import { keepBeforeUpdate, NewerDatabase } from '../../care/beforeUpdate';
import { databaseOf } from '../../care/dataFolder';
import { examine, NEWEST_SCHEMA } from '../../care/examine';
import { GUARDS } from '../../care/guards';
import { restore } from '../../care/restore';
import { holdDatabase, holderOf, InUse } from '../../care/serverLock';
import { entryHash, FIRST_PREVIOUS } from '../../case/thread/hashChain';
import { projectCase } from '../../case/progress/project';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { storesOn } from '../stores';
import { openDatabase } from './open';

let shop: TestShop;
let place: string;
const NOW = new Date('2026-12-01T08:42:15.123Z');

beforeEach(async () => {
	shop = await openTestShop();
	place = mkdtempSync(join(tmpdir(), 'jaldi-care-'));
	for (let i = 0; i < 3; i++) await put(shop, 'note', { text: `note ${i}` });
});
afterEach(() => {
	shop.close();
	rmSync(place, { recursive: true, force: true });
});

const file = () => databaseOf(shop.folder);
const run = (...statements: string[]) => shop.db.$client.executeMultiple(statements.join(';'));
/** A database of its own in a folder that nobody works on. */
async function copied(name: string): Promise<string> {
	const to = join(place, name);
	mkdirSync(to);
	const done = await backUp(shop.folder, databaseOf(to), { now: NOW });
	if (!done.ok) throw new Error(done.error);
	return databaseOf(to);
}

describe('an examination', () => {
	it('of a sound shop goes through every thread and finds nothing, while its server works', async () => {
		expect(await examine(file())).toEqual({
			integrity: 'ok',
			cases: 1,
			chains: { checked: 1, broken: [] },
			orphans: 0,
			schema: NEWEST_SCHEMA,
			newest: NEWEST_SCHEMA,
			problems: []
		});
	});

	it('names a thread that somebody has changed behind the guards, and that the guards are gone', async () => {
		await run(
			'DROP TRIGGER entry_never_changes',
			`UPDATE entry SET payload = '{"text":"another"}' WHERE seq = 2`
		);
		const found = await examine(file());
		expect(found.chains).toEqual({ checked: 1, broken: [shop.caseId] });
		expect(found.problems).toEqual([
			'The database no longer refuses what it has to refuse: entry_never_changes.',
			expect.stringMatching(/^Case number \d+ is not as it was written: entry 2 was changed/)
		]);
	});

	it('counts what belongs to nothing', async () => {
		const loose = await copied('loose');
		const client = createClient({ url: `file:${loose}` });
		await client.executeMultiple(
			"PRAGMA foreign_keys = OFF; INSERT INTO capture_chunk (capture_id, seq, bytes) VALUES ('nowhere', 1, x'00')"
		);
		client.close();
		expect(await examine(loose)).toMatchObject({
			orphans: 1,
			problems: ['One row belongs to something that is not there.']
		});
	});

	it('of damaged pages, a cut file, another file or none says so and never throws', async () => {
		const sound = await copied('sound');
		const bytes = readFileSync(sound);
		for (const [name, broken] of Object.entries({
			flipped: (() => {
				const all = Buffer.from(bytes);
				// Pages in the middle, past the first, which says that it is a database.
				for (let at = 3 * 4096; at < all.length; at += 4096) all.fill(0xa5, at, at + 64);
				return all;
			})(),
			cut: bytes.subarray(0, bytes.length / 2),
			text: Buffer.from('no database'),
			empty: Buffer.alloc(0)
		})) {
			const at = join(place, name);
			writeFileSync(at, broken);
			const { problems } = await examine(at);
			expect([name, problems.length > 0]).toEqual([name, true]);
		}
		expect((await examine(join(place, 'nowhere'))).problems[0]).toContain('There is no database');
	});

	it('knows a database that a newer version made', async () => {
		const newer = await copied('newer');
		const client = createClient({ url: `file:${newer}` });
		await client.execute(
			"INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9999999999999)"
		);
		client.close();
		expect((await examine(newer)).problems[0]).toContain('A newer Jaldi made this database');
		await expect(openDatabase(`file:${newer}`)).rejects.toThrow(NewerDatabase);
		expect(await restore(newer, join(place, 'into'))).toMatchObject({ ok: false });
	});

	it('looks for every guard that a new database has', async () => {
		const { rows } = await shop.db.$client.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'");
		const evidence = rows.map(({ name }) => String(name)).filter((name) => !name.startsWith('definition_'));
		expect([...GUARDS].sort()).toEqual(evidence.sort());
	});
});

describe('a backup', () => {
	it('made while entries are written is one moment of the shop, and comes back with every projection', async () => {
		let writing = true;
		let written = 0;
		const writer = (async () => {
			while (writing) {
				await put(shop, 'note', { text: `while it is copied ${written}` });
				written += 1;
			}
		})();
		const folder = join(place, 'kept');
		mkdirSync(folder);
		const before = (await shop.threads.read(shop.caseId)).length;
		const done = await backUp(shop.folder, folder, { now: NOW });
		writing = false;
		await writer;
		if (!done.ok) throw new Error(done.error);
		expect(done.value.examined.problems).toEqual([]);
		expect(statSync(done.value.file).mode & 0o077).toBe(0);

		const into = join(place, 'into');
		const back = await restore(folder, into);
		if (!back.ok) throw new Error(back.error);
		expect(statSync(back.value.file).mode & 0o077).toBe(0);
		const db = await openDatabase(`file:${databaseOf(into)}`);
		const thread = await storesOn(db, 'http://127.0.0.1:1').threads.read(shop.caseId);
		const whole = await shop.threads.read(shop.caseId);
		expect(thread.length).toBeGreaterThanOrEqual(before);
		expect(thread).toEqual(whole.slice(0, thread.length));
		expect(projectCase(thread)).toEqual(projectCase(whole.slice(0, thread.length)));
		db.$client.close();
	});

	it('never replaces a file, and of several in a folder the newest stay', async () => {
		const once = join(place, 'once.db');
		expect((await backUp(shop.folder, once, { now: NOW })).ok).toBe(true);
		expect(await backUp(shop.folder, once, { now: NOW })).toMatchObject({
			ok: false,
			error: expect.stringContaining('is there already')
		});
		const folder = join(place, 'several');
		mkdirSync(folder);
		writeFileSync(join(folder, 'letter.txt'), 'mine');
		for (let day = 0; day < 4; day++) {
			const now = new Date(NOW.getTime() + day * 86_400_000);
			expect((await backUp(shop.folder, folder, { now, keep: 2 })).ok).toBe(true);
		}
		expect(backupsIn(folder).map((name) => name.slice(-22))).toEqual([
			'20261204T084215123Z.db',
			'20261203T084215123Z.db'
		]);
		expect(readdirSync(folder)).toContain('letter.txt');
	});

	it('that cannot be written leaves nothing behind and says why', async () => {
		const none = await backUp(join(place, 'nowhere'), join(place, 'x.db'), { now: NOW });
		expect(none).toMatchObject({ ok: false, error: expect.stringContaining('There is no database') });
		writeFileSync(join(place, 'file'), '');
		const under = await backUp(shop.folder, join(place, 'file', 'x.db'), { now: NOW });
		expect(under).toMatchObject({ ok: false, error: expect.stringContaining('No backup was made') });
		expect(readdirSync(place)).toEqual(['file']);
	});
});

describe('a restore', () => {
	it('goes into a new or an empty folder and into no other', async () => {
		const kept = join(place, 'kept.db');
		await backUp(shop.folder, kept, { now: NOW });
		expect(await restore(kept, shop.folder)).toMatchObject({
			ok: false,
			error: expect.stringContaining('is not empty')
		});
		const into = join(place, 'into');
		mkdirSync(into);
		expect((await restore(kept, into)).ok).toBe(true);
		expect(await restore(kept, into)).toMatchObject({ ok: false });
		expect(await restore(join(place, 'nowhere'), join(place, 'new'))).toMatchObject({ ok: false });
		expect(existsSync(join(place, 'new'))).toBe(false);
	});

	it('of a damaged backup is refused before anything is written', async () => {
		const kept = join(place, 'kept.db');
		await backUp(shop.folder, kept, { now: NOW });
		const handle = openSync(kept, 'r+');
		const size = statSync(kept).size;
		for (let at = 4096; at < size; at += 4096) writeSync(handle, Buffer.alloc(128, 0x5a), 0, 128, at);
		closeSync(handle);
		expect(await restore(kept, join(place, 'into'))).toMatchObject({
			ok: false,
			error: expect.stringContaining('cannot be restored')
		});
		expect(existsSync(join(place, 'into'))).toBe(false);
	});
});

describe('one database', () => {
	it('has one server: the second is refused with its name, until the first is gone', () => {
		const giveBack = holdDatabase(file());
		// Of this very process it is a start anew, as in a container.
		expect(holderOf(file())).toBeNull();
		writeFileSync(`${file()}.lock`, JSON.stringify({ pid: process.ppid, host: 'elsewhere' }));
		expect(() => holdDatabase(file())).toThrow(InUse);
		expect(() => holdDatabase(file())).toThrow(/process \d+ on elsewhere/);
		giveBack();
		expect(holderOf(file())).toBeNull();
	});

	it('is taken over from a server that died, whatever it left', () => {
		const lock = `${file()}.lock`;
		const pid = 2 ** 22 - 3;
		writeFileSync(lock, JSON.stringify({ pid, host: 'elsewhere' }));
		const long = new Date(Date.now() - 120_000);
		utimesSync(lock, long, long);
		holdDatabase(file())();
		writeFileSync(lock, '{"pid":');
		holdDatabase(file())();
		expect(existsSync(lock)).toBe(false);
	});

	it('is refused a restore while a server works on its folder', async () => {
		const kept = join(place, 'kept.db');
		await backUp(shop.folder, kept, { now: NOW });
		const into = join(place, 'into');
		mkdirSync(into);
		writeFileSync(`${databaseOf(into)}.lock`, JSON.stringify({ pid: 1, host: 'elsewhere' }));
		expect(await restore(kept, into)).toMatchObject({
			ok: false,
			error: expect.stringContaining('A server works on')
		});
	});
});

const MIGRATIONS = 'src/lib/server/migrations';

/** A database as an earlier version left it, with one thread of two entries in it. */
async function asOf(steps: number, at: string): Promise<void> {
	const folder = join(place, `steps-${steps}`);
	cpSync(MIGRATIONS, folder, { recursive: true });
	const journal = JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as {
		entries: unknown[];
	};
	writeFileSync(
		join(folder, 'meta/_journal.json'),
		JSON.stringify({ ...journal, entries: journal.entries.slice(0, steps) })
	);
	const client = createClient({ url: `file:${at}` });
	await migrate(drizzle(client), { migrationsFolder: folder });
	const [caseId, moment] = [ulid(), '2026-01-02T03:04:05.000Z'];
	await client.executeMultiple(`
		INSERT INTO user (id, name, email, created_at, updated_at) VALUES ('u', 'Ana', 'ana@shop.test', 1, 1);
		INSERT INTO vehicle (id, type_id, nickname, plate, created_at) VALUES ('v', 'brindle-marlow-16', 'bus', 'TP 1', '${moment}');
		INSERT INTO case_record (id, number, vehicle_id, created_at) VALUES ('${caseId}', 412, 'v', '${moment}');`);
	let previousHash = FIRST_PREVIOUS;
	for (const [seq, text] of [
		[1, 'first'],
		[2, 'second']
	] as const) {
		const entry = {
			id: ulid(),
			caseId,
			kind: seq === 1 ? 'case-opened' : 'note',
			version: 1,
			observedAt: moment,
			supersedes: null,
			payload:
				seq === 1 ? { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'bus', plate: 'TP 1' } : { text },
			seq,
			authorId: 'u',
			authorName: 'Ana',
			receivedAt: moment,
			previousHash
		};
		const hash = entryHash(entry);
		await client.execute({
			sql: 'INSERT INTO entry (id, case_id, seq, kind, version, author_id, author_name, observed_at, received_at, payload, previous_hash, hash) VALUES (?,?,?,?,?,?,?,?,?,?,?,?)',
			args: [
				entry.id,
				caseId,
				seq,
				entry.kind,
				1,
				'u',
				'Ana',
				moment,
				moment,
				JSON.stringify(entry.payload),
				previousHash,
				hash
			]
		});
		previousHash = hash;
	}
	client.close();
}

describe('a database of an earlier version', () => {
	it.each(Array.from({ length: NEWEST_SCHEMA - 1 }, (_, i) => i + 1))(
		'of %i steps is copied as it was, then brought up to date with its thread',
		async (steps) => {
			const at = join(place, `old-${steps}.db`);
			await asOf(steps, at);
			expect(await examine(at)).toMatchObject({ integrity: 'ok', schema: steps, problems: [] });
			const db = await openDatabase(`file:${at}`);
			db.$client.close();
			expect(await examine(at)).toMatchObject({
				schema: NEWEST_SCHEMA,
				chains: { checked: 1, broken: [] },
				problems: []
			});
			expect(await examine(`${at}.before-${NEWEST_SCHEMA}`)).toMatchObject({
				schema: steps,
				cases: 1,
				problems: []
			});
		}
	);

	it('that is new or up to date needs no copy', async () => {
		expect(await keepBeforeUpdate(file())).toBeNull();
		expect(await keepBeforeUpdate(join(place, 'nowhere.db'))).toBeNull();
	});
});
