import type { Client, Row } from '@libsql/client';
import { existsSync } from 'node:fs';
import type { Stamp } from '../case/entries/entry';
import { checkChain } from '../case/thread/hashChain';
import type { RawEntry } from '../case/thread/knownEntry';
import { parsedOrText } from '../core/jsonText';
import journal from '../server/migrations/meta/_journal.json' with { type: 'json' };
import { openToRead } from './dataFolder';
import { GUARDS } from './guards';

/** What a database is found to be. */
export interface Examination {
	/** `ok`, or what the database says is wrong with its pages. */
	integrity: string;
	cases: number;
	chains: {
		checked: number;
		/** Ids of the cases whose thread is not as it was written. */
		broken: string[];
	};
	/** Rows that belong to something that is not there. */
	orphans: number;
	/** Steps by which it was brought up to date, and how many this version knows. */
	schema: number;
	newest: number;
	/** In sentences; empty = nothing is wrong. */
	problems: string[];
}

/** Steps that this version knows. */
export const NEWEST_SCHEMA = journal.entries.length;
/** More than this of one kind is not told one by one. */
const MOST_TOLD = 20;
const PAGE_ENTRIES = 500;

interface ExamineOptions {
	/** Only the newest so many threads are gone through; all where absent. */
	chains?: number;
}

/**
 * Goes through a database file without changing anything: its pages, every thread entry by entry, what belongs together, and
 * whether it still refuses what it has to refuse.
 */
export async function examine(file: string, { chains }: ExamineOptions = {}): Promise<Examination> {
	const found: Examination = {
		integrity: 'ok',
		cases: 0,
		chains: { checked: 0, broken: [] },
		orphans: 0,
		schema: 0,
		newest: NEWEST_SCHEMA,
		problems: []
	};
	if (!existsSync(file)) return unreadable(found, `There is no database at ${file}.`);
	let client: Client;
	try {
		client = await openToRead(file);
	} catch (error) {
		return unreadable(found, `The database cannot be opened: ${reasonOf(error)}.`);
	}
	try {
		await lookInto(client, found, chains ?? Infinity);
	} catch (error) {
		return unreadable(found, `The database cannot be read: ${reasonOf(error)}.`);
	} finally {
		client.close();
	}
	return found;
}

function unreadable(found: Examination, problem: string): Examination {
	if (found.integrity === 'ok') found.integrity = problem;
	found.problems.push(problem);
	return found;
}

const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

async function lookInto(client: Client, found: Examination, chains: number): Promise<void> {
	const { problems } = found;
	const pages = await client.execute(`PRAGMA integrity_check(${MOST_TOLD})`);
	const said = pages.rows.map((row) => String(row[0]));
	if (said.join() !== 'ok') {
		found.integrity = said.join('; ');
		problems.push(`Pages of the database are damaged: ${found.integrity}.`);
	}
	found.schema = await schemaOf(client);
	if (found.schema === 0) {
		problems.push('This is no database of Jaldi, or its first start never ended.');
		return;
	}
	if (found.schema > found.newest)
		problems.push(
			`A newer Jaldi made this database (${found.schema} steps, this one knows ${found.newest}): do not work on it with this one.`
		);
	if (found.schema === found.newest) await lookAtGuards(client, problems);
	found.orphans = (await client.execute('PRAGMA foreign_key_check')).rows.length;
	if (found.orphans > 0)
		problems.push(
			found.orphans === 1
				? 'One row belongs to something that is not there.'
				: `${found.orphans} rows belong to things that are not there.`
		);
	await lookAtThreads(client, found, chains);
}

/** Steps by which a database was brought up to date; 0 = it is none of ours, or new. */
export async function schemaOf(client: Client): Promise<number> {
	const { rows } = await client.execute(
		"SELECT count(*) FROM sqlite_master WHERE name IN ('__drizzle_migrations', 'case_record', 'entry')"
	);
	if (Number(rows[0]?.[0]) < 3) return 0;
	return Number((await client.execute('SELECT count(*) FROM __drizzle_migrations')).rows[0]?.[0]);
}

async function lookAtGuards(client: Client, problems: string[]): Promise<void> {
	const { rows } = await client.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'");
	const there = new Set(rows.map((row) => String(row.name)));
	const missing = GUARDS.filter((name) => !there.has(name));
	if (missing.length > 0)
		problems.push(`The database no longer refuses what it has to refuse: ${missing.join(', ')}.`);
}

async function lookAtThreads(client: Client, found: Examination, chains: number): Promise<void> {
	const { rows } = await client.execute('SELECT id, number FROM case_record ORDER BY number DESC');
	found.cases = rows.length;
	for (const { id, number } of rows.slice(0, chains)) {
		const caseId = String(id);
		const reason = await brokenAt(client, caseId);
		found.chains.checked += 1;
		if (reason === null) continue;
		found.chains.broken.push(caseId);
		if (found.chains.broken.length <= MOST_TOLD)
			found.problems.push(`Case number ${Number(number)} is not as it was written: ${reason}.`);
	}
}

/** Why a thread is not as it was written; null where it is. Read in pieces: a thread may be long. */
async function brokenAt(client: Client, caseId: string): Promise<string | null> {
	let last: Pick<Stamp, 'seq' | 'hash'> | undefined;
	for (;;) {
		const { rows } = await client.execute({
			sql: 'SELECT * FROM entry WHERE case_id = ? AND seq > ? ORDER BY seq LIMIT ?',
			args: [caseId, last?.seq ?? 0, PAGE_ENTRIES]
		});
		const entries = rows.map(entryOf);
		const check = checkChain(entries, last);
		if (!check.intact) return check.reason;
		last = entries.at(-1) ?? last;
		if (entries.length < PAGE_ENTRIES) return null;
	}
}

/** As it was hashed. */
const entryOf = (row: Row): RawEntry => ({
	id: String(row.id),
	caseId: String(row.case_id),
	seq: Number(row.seq),
	kind: String(row.kind),
	version: Number(row.version),
	authorId: String(row.author_id),
	authorName: String(row.author_name),
	observedAt: String(row.observed_at),
	receivedAt: String(row.received_at),
	payload: parsedOrText(String(row.payload)),
	supersedes:
		row.supersedes === null ? null : (parsedOrText(String(row.supersedes)) as RawEntry['supersedes']),
	previousHash: String(row.previous_hash),
	hash: String(row.hash)
});
