import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { json as bodyOf } from 'node:stream/consumers';
import Sqlite, { type Database } from 'libsql';

/**
 * Stands in for a libSQL server on another machine: the protocol that the client speaks over HTTP (Hrana 2, JSON), over one file.
 * Each stream has a connection of its own, and one of them writes at a time. It is for tests: it has no replicas and trusts whoever
 * has the token.
 */
export interface LibsqlStandIn {
	url: string;
	/** Requests so far, which are the round trips of whoever asked. */
	requests: () => number;
	close: () => Promise<void>;
}

type Value =
	| { type: 'null' }
	| { type: 'integer'; value: string }
	| { type: 'float'; value: number }
	| { type: 'text'; value: string }
	| { type: 'blob'; base64: string };
interface Statement {
	sql?: string;
	sql_id?: number;
	args?: Value[];
	named_args?: { name: string; value: Value }[];
}
interface Condition {
	type: 'ok' | 'error' | 'not' | 'and' | 'or' | 'is_autocommit';
	step?: number;
	cond?: Condition;
	conds?: Condition[];
}
interface Batch {
	steps: { stmt: Statement; condition?: Condition }[];
}
type Asked =
	| { type: 'close' | 'get_autocommit' }
	| { type: 'execute'; stmt: Statement }
	| { type: 'batch'; batch: Batch }
	| { type: 'sequence' | 'describe'; sql?: string; sql_id?: number }
	| { type: 'store_sql'; sql_id: number; sql: string }
	| { type: 'close_sql'; sql_id: number };
interface Fault {
	message: string;
	code?: string;
}

const READS = /^\s*(?:select|explain|values|pragma (?:query_only|quick_check|table_info))\b/i;
/** A stream that is forgotten in a transaction keeps everybody waiting for so long. */
const FORGOTTEN_MS = 10_000;

function toSqlite(value: Value): unknown {
	if (value.type === 'null') return null;
	if (value.type === 'integer') return BigInt(value.value);
	return value.type === 'blob' ? Buffer.from(value.base64, 'base64') : value.value;
}

function fromSqlite(value: unknown): Value {
	if (value === null || value === undefined) return { type: 'null' };
	if (typeof value === 'bigint') return { type: 'integer', value: String(value) };
	if (typeof value === 'number') return { type: 'float', value };
	if (typeof value === 'string') return { type: 'text', value };
	return {
		type: 'blob',
		base64: Buffer.from(value as Uint8Array)
			.toString('base64')
			.replace(/=+$/, '')
	};
}

const faultOf = (error: unknown): Fault => {
	const { message, code } = error as Error & { code?: string };
	return { message: `SQLite error: ${message}`, code };
};

/** One connection, and what was laid down on it. */
class Stream {
	private readonly texts = new Map<number, string>();
	constructor(readonly db: Database) {}

	get open(): boolean {
		return this.db.inTransaction;
	}

	private textOf({ sql, sql_id }: { sql?: string; sql_id?: number }): string {
		const text = sql ?? this.texts.get(sql_id ?? NaN);
		if (text === undefined) throw new Error('no such statement is laid down here');
		return text;
	}

	/** Whether what is asked may change something. */
	writes(asked: readonly Asked[]): boolean {
		const texts = new Map(this.texts);
		const changes = (one: { sql?: string; sql_id?: number }) =>
			!READS.test(one.sql ?? texts.get(one.sql_id ?? NaN) ?? '');
		return asked.some((one) => {
			if (one.type === 'store_sql') texts.set(one.sql_id, one.sql);
			if (one.type === 'execute') return changes(one.stmt);
			if (one.type === 'batch') return one.batch.steps.some(({ stmt }) => changes(stmt));
			return one.type === 'sequence';
		});
	}

	private execute(statement: Statement) {
		const prepared = this.db.prepare(this.textOf(statement)).safeIntegers(true);
		const named = statement.named_args ?? [];
		const args =
			named.length > 0
				? [Object.fromEntries(named.map(({ name, value }) => [name.replace(/^[:@$]/, ''), toSqlite(value)]))]
				: [(statement.args ?? []).map(toSqlite)];
		if (!prepared.reader) {
			const { changes, lastInsertRowid } = prepared.run(...args);
			return {
				cols: [],
				rows: [],
				affected_row_count: changes,
				last_insert_rowid: String(lastInsertRowid)
			};
		}
		const cols = prepared.columns().map(({ name, type }) => ({ name, decltype: type ?? undefined }));
		const rows = (prepared.raw(true).all(...args) as unknown[][]).map((row) => row.map(fromSqlite));
		return { cols, rows, affected_row_count: 0, last_insert_rowid: undefined };
	}

	private batch({ steps }: Batch) {
		const results: unknown[] = [];
		const errors: (Fault | null)[] = [];
		const holds = ({ type, step = -1, cond, conds = [] }: Condition): boolean => {
			if (type === 'ok') return Boolean(results[step]);
			if (type === 'error') return Boolean(errors[step]);
			if (type === 'not') return cond !== undefined && !holds(cond);
			if (type === 'is_autocommit') return !this.open;
			return type === 'and' ? conds.every(holds) : conds.some(holds);
		};
		for (const { stmt, condition } of steps) {
			let result: unknown = null;
			let fault: Fault | null = null;
			if (!condition || holds(condition))
				try {
					result = this.execute(stmt);
				} catch (error) {
					fault = faultOf(error);
				}
			results.push(result);
			errors.push(fault);
		}
		return { step_results: results, step_errors: errors };
	}

	answer(asked: Asked): object {
		const { type } = asked;
		if (type === 'execute') return { type, result: this.execute(asked.stmt) };
		if (type === 'batch') return { type, result: this.batch(asked.batch) };
		if (type === 'sequence') this.db.exec(this.textOf(asked));
		if (type === 'store_sql') this.texts.set(asked.sql_id, asked.sql);
		if (type === 'close_sql') this.texts.delete(asked.sql_id);
		if (type === 'get_autocommit') return { type, is_autocommit: !this.open };
		if (type === 'describe') throw new Error('nothing is described here');
		return { type };
	}
}

/** @param latencyMs how long every answer takes on its way; @param token what whoever asks must have */
export async function startLibsqlStandIn(
	file: string,
	{ latencyMs = 0, token, port = 0 }: { latencyMs?: number; token?: string; port?: number } = {}
): Promise<LibsqlStandIn> {
	const resting: Database[] = [];
	const streams = new Map<string, Stream>();
	let requests = 0;
	/** Ends with the last one that writes. */
	let turn: Promise<void> = Promise.resolve();
	const turns = new WeakMap<Stream, () => void>();

	const connect = (): Database => {
		const db = new Sqlite(file);
		db.exec('PRAGMA journal_mode = WAL; PRAGMA foreign_keys = ON; PRAGMA synchronous = FULL');
		return db;
	};
	async function takeTurn(stream: Stream): Promise<void> {
		const before = turn;
		let end: () => void = () => undefined;
		turn = new Promise((resolve) => (end = resolve));
		await before;
		const forgotten = setTimeout(() => giveTurn(stream), FORGOTTEN_MS);
		turns.set(stream, () => {
			clearTimeout(forgotten);
			end();
		});
	}
	function giveTurn(stream: Stream): void {
		if (stream.open) stream.db.exec('ROLLBACK');
		turns.get(stream)?.();
		turns.delete(stream);
	}

	async function pipeline({ baton, requests: asked }: { baton?: string; requests: Asked[] }) {
		const known = baton === undefined ? undefined : streams.get(baton);
		if (baton !== undefined && !known) return { status: 400, body: { message: 'the stream has expired' } };
		const stream = known ?? new Stream(resting.pop() ?? connect());
		if (baton !== undefined) streams.delete(baton);
		if (!turns.has(stream) && stream.writes(asked)) await takeTurn(stream);
		const results = asked.map((one) => {
			try {
				return { type: 'ok', response: stream.answer(one) };
			} catch (error) {
				return { type: 'error', error: faultOf(error) };
			}
		});
		const closed = asked.some(({ type }) => type === 'close');
		if (closed || !stream.open) giveTurn(stream);
		if (closed) resting.push(stream.db);
		const next = closed ? null : randomUUID();
		if (next) streams.set(next, stream);
		return { status: 200, body: { baton: next, base_url: null, results } };
	}

	async function serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
		requests++;
		const body = (await bodyOf(request)) as { baton?: string; requests: Asked[] };
		const refused = token !== undefined && request.headers.authorization !== `Bearer ${token}`;
		const answer = refused
			? { status: 401, body: { message: 'this is not the token of this database' } }
			: request.url === '/v2/pipeline'
				? await pipeline(body)
				: { status: 404, body: { message: 'there is nothing here' } };
		if (latencyMs > 0) await new Promise((resolve) => setTimeout(resolve, latencyMs));
		response
			.writeHead(answer.status, { 'content-type': 'application/json' })
			.end(JSON.stringify(answer.body));
	}

	const server = createServer((request, response) => {
		serve(request, response).catch((error: unknown) => {
			response.writeHead(500).end(JSON.stringify({ message: String(error) }));
		});
	});
	await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
	return {
		url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
		requests: () => requests,
		async close() {
			server.closeAllConnections();
			await new Promise((resolve) => server.close(resolve));
			for (const { db } of streams.values()) db.close();
			for (const db of resting) db.close();
		}
	};
}
