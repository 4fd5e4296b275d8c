import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileOf, OWNER_ONLY } from '../../care/dataFolder';
import { keepBeforeUpdate } from '../../care/beforeUpdate';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema> & { $client: Client };

const MIGRATIONS = 'src/lib/server/migrations';
const BUSY_MS = 5000;

/**
 * Opens the database and brings it up to date, with a copy of it as it was beside it. A local file is given WAL; libSQL's own defaults keep foreign keys on and
 * synchronous FULL on every connection, which an acknowledged entry relies on.
 */
export async function openDatabase(url: string, authToken?: string): Promise<Database> {
	const file = fileOf(url);
	if (file) {
		mkdirSync(dirname(file), { recursive: true });
		await keepBeforeUpdate(file);
	}
	const client = createClient({ url, authToken, timeout: BUSY_MS });
	if (file) {
		await client.execute('PRAGMA journal_mode = WAL');
		for (const part of ['', '-wal', '-shm']) if (existsSync(file + part)) chmodSync(file + part, OWNER_ONLY);
	}
	const db = drizzle(client, { schema });
	await migrate(db, { migrationsFolder: MIGRATIONS });
	return db;
}
