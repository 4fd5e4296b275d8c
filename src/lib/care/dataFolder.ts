import { createClient, type Client } from '@libsql/client';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

export const DATABASE_FILE = 'jaldi.db';
/** What is kept of a shop is read by the account that it runs under, and by nobody else. */
export const OWNER_ONLY = 0o600;
export const FOLDER_OF_OWNER = 0o700;

const FILE_URL = 'file:';
/** The file that a database's address names; null where it is on another machine. */
export const fileOf = (url: string): string | null =>
	url.startsWith(FILE_URL) ? url.slice(FILE_URL.length) : null;

export const databaseOf = (folder: string): string => join(folder, DATABASE_FILE);

/** Whether there is nothing in a folder; one that does not exist is empty. */
export const isEmpty = (folder: string): boolean => !existsSync(folder) || readdirSync(folder).length === 0;

/** Opens a database file to look at it: nothing can be written, and nothing is brought up to date. */
export async function openToRead(file: string): Promise<Client> {
	const client = createClient({ url: `file:${file}` });
	try {
		await client.execute('PRAGMA query_only = ON');
		return client;
	} catch (error) {
		client.close();
		throw error;
	}
}
