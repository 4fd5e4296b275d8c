import type { Client, InStatement, ResultSet, Transaction, TransactionMode } from '@libsql/client';
import { isRead, withOwn } from './clientParts';
import type { DatabaseHealth } from './health';

/**
 * One writer at a time on one thread. SQLite has one lock for writing, and this client waits for it by standing still: whoever
 * writes while a transaction of the same thread is open would wait for somebody who cannot go on, until both are refused. So
 * transactions go one after the other here, and single writes wait for the one that is open. Reads never wait.
 *
 * Nothing inside a transaction may write by another way than its own: it would wait for itself.
 *
 * Every write also says how the database's place is: what a full disk or a damaged file refuses is refused with a sentence.
 */
export function oneWriter(client: Client, health: DatabaseHealth): Client {
	/** Ends with the last transaction that was asked for. */
	let turn: Promise<void> = Promise.resolve();
	let waiting = 0;

	const untilFree = async (): Promise<void> => {
		while (waiting > 0) await turn;
	};

	/** Writes, and tells how it went. */
	async function written<T>(write: () => Promise<T>): Promise<T> {
		health.beforeWriting();
		try {
			const done = await write();
			// What changed no row has written nothing, and says nothing of the disk.
			if (changedRows(done)) health.wrote();
			return done;
		} catch (error) {
			throw health.failed(error);
		}
	}
	async function read<T>(ask: () => Promise<T>): Promise<T> {
		try {
			return await ask();
		} catch (error) {
			throw health.failed(error);
		}
	}

	async function transaction(mode?: TransactionMode): Promise<Transaction> {
		if (mode === 'read') return client.transaction(mode);
		const before = turn;
		let end: () => void = () => undefined;
		turn = new Promise((resolve) => (end = resolve));
		waiting++;
		const ended = () => {
			waiting--;
			end();
		};
		await before;
		try {
			health.beforeWriting();
			return releasing(await client.transaction(mode ?? 'write'), ended, { read, written });
		} catch (error) {
			ended();
			throw health.failed(error);
		}
	}

	// Writes the first page anew, as it is: the smallest write that there is.
	health.probeBy(() => written(async () => void (await client.execute('PRAGMA user_version = 0'))));
	const own: Partial<Client> = {
		transaction: transaction as Client['transaction'],
		execute: (async (statement: InStatement, args?: never) => {
			const ask = () =>
				args === undefined ? client.execute(statement) : client.execute(statement as unknown as string, args);
			if (isRead(statement)) return read(ask);
			await untilFree();
			return written(ask);
		}) as Client['execute'],
		batch: async (statements, mode) => {
			if (mode === 'read') return read(() => client.batch(statements, mode));
			await untilFree();
			return written(() => client.batch(statements, mode));
		}
	};
	return withOwn(client, own);
}

/** A commit counts as a change: whoever begins to write has something to write. */
const changedRows = (done: unknown): boolean =>
	done === undefined || [done].flat().some((one) => (one as ResultSet).rowsAffected > 0);

/** A transaction that gives the turn on when it has ended, however it ends. */
function releasing(
	transaction: Transaction,
	ended: () => void,
	{ read, written }: Record<'read' | 'written', <T>(ask: () => Promise<T>) => Promise<T>>
): Transaction {
	let open = true;
	const over = () => {
		if (open) ended();
		open = false;
	};
	const own: Partial<Transaction> = {
		execute: ((...args: Parameters<Transaction['execute']>) =>
			read(() => transaction.execute(...args))) as Transaction['execute'],
		batch: (statements) => read(() => transaction.batch(statements)),
		commit: () => written(() => transaction.commit()).finally(over),
		rollback: () => transaction.rollback().finally(over),
		close: () => {
			transaction.close();
			over();
		}
	};
	return withOwn(transaction, own);
}
