import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema> & { $client: Client };

const MIGRATIONS = 'src/lib/server/migrations';
const BUSY_MS = 5000;
/** What customers say of their vehicles is read by the account that the server runs under, and by nobody else. */
const OWNER_ONLY = 0o600;

/**
 * Opens the database and brings it up to date. A local file is given WAL; libSQL's own defaults keep foreign keys on and
 * synchronous FULL on every connection, which an acknowledged entry relies on.
 */
export async function openDatabase(url: string, authToken?: string): Promise<Database> {
	const file = url.startsWith('file:') ? url.slice('file:'.length) : null;
	if (file) mkdirSync(dirname(file), { recursive: true });
	const client = createClient({ url, authToken, timeout: BUSY_MS });
	if (file) {
		await client.execute('PRAGMA journal_mode = WAL');
		for (const part of ['', '-wal', '-shm']) if (existsSync(file + part)) chmodSync(file + part, OWNER_ONLY);
	}
	const db = drizzle(client, { schema });
	await migrate(db, { migrationsFolder: MIGRATIONS });
	return db;
}
