// npm run many-cases -- [CASES [FOLDER]]: a shop with a great many cases, for finding out what grows with them. Goes on where it
// was stopped. Its threads are the demo shop's, each anew with ids, times and words of its own and a whole chain.
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import canonicalize from 'canonicalize';
import Sqlite from 'libsql';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { monotonicFactory } from 'ulid';
import type { Entry } from '../src/lib/case/entries/entry';
import { checkChain, FIRST_PREVIOUS } from '../src/lib/case/thread/hashChain';
import { prepareShop } from './shop.mjs';

const [wanted = '100000', folder = 'data/many'] = process.argv.slice(2);
/** Entries of a thread, on the average. */
const ENTRIES = 20;
/** Cases that are written in one go: what is lost when it is stopped. */
const AT_ONCE = 250;
/** One vehicle comes so often. */
const VISITS = 3;
const STEP_MS = 4 * 60_000;
const FIRST_PORT = 5_700;
const WORDS =
	'lamp stays on after rain car wash gravel ferry ramp cold morning pedal pulses at crawl left front clicks hum bearing trailer hitch reverse yard speed drops cable rubbed bracket seat heater kerb puddle salt workshop tyre new sensor grinding warning comes goes bridge hill brakes motorway'.split(
		' '
	);

/** Of one moment each is the one before and one more: cheaper than chance. */
const ulid = monotonicFactory();
type Row = Record<string, string | number | null>;

prepareShop({ data: folder, firstPort: FIRST_PORT });
const db = new Sqlite(join(folder, 'jaldi.db'));
db.exec(
	'PRAGMA journal_mode = WAL; PRAGMA foreign_keys = ON; PRAGMA synchronous = NORMAL; PRAGMA cache_size = -200000'
);
const rows = (sql: string, ...args: unknown[]): Row[] => db.prepare(sql).all(...args) as Row[];
const insert = (table: string, sample: Row) => {
	const names = Object.keys(sample);
	const statement = db.prepare(
		`INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`
	);
	return (row: Row) => statement.run(...names.map((name) => row[name]));
};

/** The one row that a shop as it is shipped has. */
function one(sql: string, ...args: unknown[]): Row {
	const [row] = rows(sql, ...args);
	if (!row) throw new Error(`the demo shop has nothing of: ${sql}`);
	return row;
}

const pattern = one(
	'SELECT * FROM case_record WHERE signed = 1 AND from_shop IS NULL ORDER BY number LIMIT 1'
);
const thread = rows('SELECT * FROM entry WHERE case_id = ? ORDER BY seq', pattern.id);
const vehicle = one('SELECT * FROM vehicle WHERE id = ?', pattern.vehicle_id);
const codes = rows('SELECT * FROM case_code WHERE case_id = ?', pattern.id);
const words = one('SELECT complaint, mended, notes FROM case_search WHERE rowid = ?', pattern.number);
const opened = one('SELECT * FROM entry WHERE case_id = ? AND seq = 1', pattern.id);
const noteSaying = (text: string): Row => ({
	...opened,
	id: ulid(),
	kind: 'note',
	supersedes: null,
	payload: JSON.stringify({ text })
});

const addCase = insert('case_record', pattern);
const addVehicle = insert('vehicle', vehicle);
const addEntry = insert('entry', opened);
const addCode = codes[0] && insert('case_code', codes[0]);
const addWords = db.prepare('INSERT INTO case_search (rowid, complaint, mended, notes) VALUES (?, ?, ?, ?)');

/** Numbers up to here are the demo's own. */
const FIRST = 1_000;
const made = () => Math.max(0, Number(rows('SELECT MAX(number) AS n FROM case_record')[0]?.n) - FIRST);

function saidBy(random: RandomGenerator): string {
	const count = uniformInt(random, 4, 12);
	return Array.from({ length: count }, () => WORDS[uniformInt(random, 0, WORDS.length - 1)]).join(' ');
}

/** The same as a thread's own, by the faster of two libraries; the first thread is held against it. */
const hashOf = (stamped: Omit<Entry, 'hash'>): string =>
	createHash('sha256')
		.update(canonicalize(stamped) ?? '')
		.digest('hex');

let vehicleId = '';
function add(at: number): void {
	const random = xoroshiro128plus(at);
	const startMs = Date.now() - at * STEP_MS;
	const number = FIRST + 1 + at;
	if (at % VISITS === 0 || vehicleId === '') {
		vehicleId = ulid();
		addVehicle({
			...vehicle,
			id: vehicleId,
			plate: `TP ${at}`,
			nickname: `${vehicle.nickname} ${at}`,
			vin: null,
			link_address: null,
			stand_in_address: null
		});
	}
	const id = ulid(startMs);
	const said = saidBy(random);
	const summary = JSON.parse(String(pattern.summary)) as object;
	addCase({
		...pattern,
		id,
		number,
		vehicle_id: vehicleId,
		summary: JSON.stringify({ ...summary, complaint: said }),
		summary_seq: ENTRIES,
		signed: 0,
		created_at: new Date(startMs).toISOString()
	});
	const ids = new Map([
		[String(pattern.id), id],
		...thread.map((entry) => [String(entry.id), ulid(startMs)] as const)
	]);
	const anew = (text: string) => text.replace(/[0-9A-Z]{26}/g, (known) => ids.get(known) ?? known);
	// Notes in the middle bring a thread to its length; its signature stays the last.
	const filled: Row[] = [
		...thread.slice(0, -1),
		...Array.from({ length: Math.max(0, ENTRIES - thread.length) }, () => noteSaying(saidBy(random))),
		...thread.slice(-1)
	];
	let previousHash = FIRST_PREVIOUS;
	const written: Entry[] = [];
	for (const [i, row] of filled.entries()) {
		const moment = new Date(startMs + i * 60_000).toISOString();
		let payload = JSON.parse(anew(String(row.payload))) as Record<string, unknown>;
		if (row.kind === 'complaint') payload = { ...payload, words: said };
		const stamped = {
			id: ids.get(String(row.id)) ?? String(row.id),
			caseId: id,
			kind: row.kind,
			version: row.version,
			observedAt: moment,
			payload,
			supersedes: row.supersedes ? (JSON.parse(anew(String(row.supersedes))) as unknown) : null,
			seq: i + 1,
			authorId: row.author_id,
			authorName: row.author_name,
			receivedAt: moment,
			previousHash
		} as unknown as Omit<Entry, 'hash'>;
		const hash = hashOf(stamped);
		addEntry({
			...row,
			id: stamped.id,
			case_id: id,
			seq: stamped.seq,
			observed_at: moment,
			received_at: moment,
			payload: JSON.stringify(payload),
			supersedes: stamped.supersedes ? JSON.stringify(stamped.supersedes) : null,
			previous_hash: previousHash,
			hash
		});
		previousHash = hash;
		if (at === 0) written.push({ ...stamped, hash } as Entry);
	}
	if (!checkChain(written).intact) throw new Error('threads are not written as they are read');
	db.prepare('UPDATE case_record SET signed = 1 WHERE id = ?').run(id);
	for (const code of codes) addCode?.({ ...code, case_id: id });
	addWords.run(number, said, words.mended, words.notes);
}

const began = Date.now();
const before = made();
for (let at = before; at < Number(wanted);) {
	const end = Math.min(at + AT_ONCE, Number(wanted));
	db.exec('BEGIN IMMEDIATE');
	for (; at < end; at++) add(at);
	db.exec('COMMIT');
	if (at % 5_000 < AT_ONCE) {
		const rate = (at - before) / ((Date.now() - began) / 1000);
		console.log(`${at} cases, ${rate.toFixed(0)} a second`);
	}
}
db.exec('ANALYZE; PRAGMA wal_checkpoint(TRUNCATE)');
const { page_count: pages } = rows('PRAGMA page_count')[0] ?? {};
console.log(
	`${made()} cases, ${Number(rows('SELECT COUNT(*) AS n FROM entry')[0]?.n)} entries, ${((Number(pages) * 4096) / 1e9).toFixed(2)} GB in ${folder}`
);
db.close();
