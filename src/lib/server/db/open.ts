import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileOf, OWNER_ONLY } from '../../care/dataFolder';
import { keepBeforeUpdate } from '../../care/beforeUpdate';
import { DatabaseHealth } from './health';
import { oneWriter } from './oneWriter';
import { remoteClient } from './remoteClient';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema> & { $client: Client };

/** How the place of each open database is; of one on another machine nothing is known. */
const healths = new WeakMap<Database, DatabaseHealth>();
export const healthOf = (db: Database): DatabaseHealth => healths.get(db) ?? new DatabaseHealth();

const MIGRATIONS = 'src/lib/server/migrations';
const BUSY_MS = 5000;

/**
 * Opens the database and brings it up to date, a local file with a copy of it as it was beside it. A file is given WAL; libSQL's
 * own defaults keep foreign keys on and synchronous FULL on every connection, which an acknowledged entry relies on.
 */
export async function openDatabase(url: string, authToken?: string): Promise<Database> {
	const file = fileOf(url);
	if (file) {
		mkdirSync(dirname(file), { recursive: true });
		await keepBeforeUpdate(file);
	}
	const health = new DatabaseHealth();
	const client = file
		? oneWriter(createClient({ url, timeout: BUSY_MS }), health)
		: remoteClient(url, authToken, health);
	try {
		if (file) {
			await client.execute('PRAGMA journal_mode = WAL');
			for (const part of ['', '-wal', '-shm'])
				if (existsSync(file + part)) chmodSync(file + part, OWNER_ONLY);
		}
		const db = drizzle(client, { schema });
		healths.set(db, health);
		await migrate(db, { migrationsFolder: MIGRATIONS });
		return db;
	} catch (error) {
		client.close();
		throw health.failed(error);
	}
}
