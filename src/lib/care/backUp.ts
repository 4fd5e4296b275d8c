import { createClient } from '@libsql/client';
import {
	closeSync,
	existsSync,
	fsyncSync,
	mkdirSync,
	chmodSync,
	openSync,
	readdirSync,
	renameSync,
	rmSync,
	statSync
} from 'node:fs';
import { dirname, join } from 'node:path';
import { fail, ok, type Result } from '../core/result';
import { databaseOf, FOLDER_OF_OWNER, OWNER_ONLY } from './dataFolder';
import { examine, type Examination } from './examine';

export interface Backup {
	/** The file that was made. */
	file: string;
	bytes: number;
	/** What it was found to be when it was opened again. */
	examined: Examination;
	/** Older ones that were taken away. */
	removed: string[];
}

/** Names of backups within a folder, by their moment: `jaldi-20261201T084215123Z.db`. */
const NAME = /^jaldi-\d{8}T\d{9}Z\.db$/;
const nameAt = (now: Date): string => `jaldi-${now.toISOString().replace(/[-:.]/g, '')}.db`;

export const isBackupName = (name: string): boolean => NAME.test(name);

/** Backups within a folder, the newest first. */
export const backupsIn = (folder: string): string[] =>
	readdirSync(folder)
		.filter(isBackupName)
		.sort()
		.reverse()
		.map((name) => join(folder, name));

const isFolder = (path: string): boolean => existsSync(path) && statSync(path).isDirectory();

/** Until this is done nobody may say that it is on disk. */
export function toDisk(path: string): void {
	const handle = openSync(path, 'r');
	try {
		fsyncSync(handle);
	} finally {
		closeSync(handle);
	}
}

/** One moment of a database, whatever is written to it meanwhile; its pages come out in order and without gaps. */
export async function copyTo(from: string, to: string): Promise<void> {
	const aside = `${to}.part`;
	rmSync(aside, { force: true });
	const client = createClient({ url: `file:${from}` });
	try {
		await client.execute({ sql: 'VACUUM INTO ?', args: [aside] });
	} finally {
		client.close();
	}
	chmodSync(aside, OWNER_ONLY);
	toDisk(aside);
	renameSync(aside, to);
	toDisk(dirname(to));
}

interface BackUpOptions {
	now: Date;
	/** How many a folder keeps; all where absent. */
	keep?: number;
	/** Of how many threads the copy is gone through, the newest first. */
	chains?: number;
}

/**
 * A consistent copy of a shop's database, made while its server goes on working, opened again and gone through before it gets its
 * name. The secret that signs sessions is not in it: whoever restores it signs in anew.
 *
 * @param to a file that does not exist yet, or a folder that keeps several
 */
export async function backUp(
	folder: string,
	to: string,
	{ now, keep, chains }: BackUpOptions
): Promise<Result<Backup>> {
	const from = databaseOf(folder);
	if (!existsSync(from)) return fail(`There is no database at ${from}.`);
	const severalIn = isFolder(to) ? to : null;
	const file = severalIn ? join(severalIn, nameAt(now)) : to;
	if (existsSync(file)) return fail(`${file} is there already: a backup never replaces another file.`);
	// Until it was gone through it has no name that anybody takes for a backup.
	const unseen = `${file}.unseen`;
	try {
		mkdirSync(dirname(file), { recursive: true, mode: FOLDER_OF_OWNER });
		await copyTo(from, unseen);
		const examined = await examine(unseen, chains === undefined ? {} : { chains });
		if (examined.integrity !== 'ok') {
			rmSync(unseen, { force: true });
			return fail(`The copy cannot be relied on and was thrown away: ${examined.integrity}.`);
		}
		renameSync(unseen, file);
		toDisk(dirname(file));
		const removed = severalIn && keep !== undefined ? backupsIn(severalIn).slice(keep) : [];
		for (const old of removed) rmSync(old);
		return ok({ file, bytes: statSync(file).size, examined, removed });
	} catch (error) {
		for (const left of [unseen, `${unseen}.part`]) if (existsSync(left)) rmSync(left);
		return fail(`No backup was made: ${error instanceof Error ? error.message : String(error)}.`);
	}
}
