import { createClient, type Client, type InStatement, type ResultSet } from '@libsql/client';
import { DatabaseTrouble, type DatabaseHealth } from './health';
import { isRead, withOwn } from './clientParts';

/** A database that has not answered after this long is taken to be out of reach. */
const PATIENCE_MS = 15_000;
/** Reads that go over the line together. */
const MOST_TOGETHER = 100;

interface Asked {
	statement: InStatement;
	resolve: (result: ResultSet) => void;
	reject: (error: unknown) => void;
}

/** Answers of a server that has no answer now, though it may have one later. */
const isAway = (status: number): boolean => status >= 500 || status === 429;
const isRefused = (status: number): boolean => status === 401 || status === 403;

/** One request over the line; what keeps it from coming through is told from what the database says. */
async function overTheLine(request: Request): Promise<Response> {
	let response: Response;
	try {
		response = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) });
	} catch (error) {
		throw new DatabaseTrouble('unreachable', error);
	}
	if (isRefused(response.status)) throw new Error('The database refuses JALDI_DATABASE_TOKEN.');
	if (isAway(response.status)) throw new DatabaseTrouble('unreachable');
	return response;
}

/**
 * A database on another machine. What is read in the same moment goes over the line together, so that a page waits for few round
 * trips however much it asks. A read that the line swallowed is asked once more: a connection that rested may have been cut by
 * whoever stands between. Writes are never repeated here: whoever sends an entry again does so under its id.
 */
export function remoteClient(url: string, authToken: string | undefined, health: DatabaseHealth): Client {
	const client = createClient({ url, authToken, fetch: overTheLine });
	let waiting: Asked[] = [];

	async function told<T>(ask: () => Promise<T>, wrote: boolean): Promise<T> {
		try {
			if (wrote) health.beforeWriting();
			const answer = await ask();
			if (wrote) health.wrote();
			else health.answered();
			return answer;
		} catch (error) {
			throw health.failed(error);
		}
	}

	const again = async <T>(ask: () => Promise<T>): Promise<T> => {
		try {
			return await ask();
		} catch (error) {
			if (!wasLost(error)) throw error;
			return await ask();
		}
	};

	/** Each on its own where they failed together: one that is wrong takes nobody with it. */
	async function alone(asked: readonly Asked[]): Promise<void> {
		await Promise.all(
			asked.map(({ statement, resolve, reject }) =>
				told(() => again(() => client.execute(statement)), false).then(resolve, reject)
			)
		);
	}

	async function send(asked: readonly Asked[]): Promise<void> {
		if (asked.length === 1) return alone(asked);
		try {
			const statements = asked.map(({ statement }) => statement);
			const results = await again(() => client.batch(statements, 'read'));
			health.answered();
			asked.forEach(({ resolve, reject }, i) => {
				const result = results[i];
				if (result) resolve(result);
				else reject(new Error('the database left an answer out'));
			});
		} catch (error) {
			// Where nobody answers, nobody is asked again one by one.
			if (!wasLost(error)) return alone(asked);
			const trouble = health.failed(error);
			for (const { reject } of asked) reject(trouble);
		}
	}

	function flush(): void {
		const asked = waiting;
		waiting = [];
		for (let from = 0; from < asked.length; from += MOST_TOGETHER)
			void send(asked.slice(from, from + MOST_TOGETHER));
	}

	const read = (statement: InStatement) =>
		new Promise<ResultSet>((resolve, reject) => {
			waiting.push({ statement, resolve, reject });
			if (waiting.length === 1) setImmediate(flush);
		});

	return withOwn(client, {
		execute: (async (asked: InStatement, args?: never) => {
			const statement = typeof asked === 'string' ? { sql: asked, args: args ?? [] } : asked;
			return isRead(statement) ? read(statement) : told(() => client.execute(statement), true);
		}) as Client['execute'],
		batch: (statements, mode) =>
			mode === 'read'
				? told(() => again(() => client.batch(statements, mode)), false)
				: told(() => client.batch(statements, mode), true)
	});
}

/** Whether an error came of the line and not of the database. */
function wasLost(error: unknown): boolean {
	for (let now = error, depth = 0; now instanceof Error && depth < 8; now = now.cause, depth++)
		if (now instanceof DatabaseTrouble && now.kind === 'unreachable') return true;
	return false;
}
