import { chmodSync, copyFileSync, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { fail, ok, type Result } from '../core/result';
import { backupsIn, toDisk } from './backUp';
import { databaseOf, FOLDER_OF_OWNER, isEmpty, OWNER_ONLY } from './dataFolder';
import { examine, type Examination } from './examine';
import { holderOf } from './serverLock';

export interface Restored {
	/** The backup that was taken. */
	from: string;
	/** The database that was made of it. */
	file: string;
	examined: Examination;
}

/**
 * Puts a backup into an empty data folder. Nothing is ever written over; a server brings an older one up to date when it starts.
 *
 * @param from a backup, or a folder that keeps several: then its newest
 */
export async function restore(from: string, folder: string): Promise<Result<Restored>> {
	if (!existsSync(from)) return fail(`There is no backup at ${from}.`);
	const [backup] = statSync(from).isDirectory() ? backupsIn(from) : [from];
	if (backup === undefined) return fail(`There is no backup in ${from}.`);
	const file = databaseOf(folder);
	if (existsSync(folder) && !statSync(folder).isDirectory()) return fail(`${folder} is no folder.`);
	const holder = holderOf(file);
	if (holder)
		return fail(`A server works on ${folder} (process ${holder.pid} on ${holder.host}): stop it first.`);
	if (!isEmpty(folder))
		return fail(`${folder} is not empty: a backup is restored into a new folder, so that nothing is lost.`);
	const examined = await examine(backup);
	if (examined.integrity !== 'ok')
		return fail(`${backup} cannot be restored. ${examined.problems.join(' ')}`);
	if (examined.schema === 0 || examined.schema > examined.newest)
		return fail(`${backup} cannot be restored by this version. ${examined.problems.join(' ')}`);
	const aside = `${file}.part`;
	try {
		mkdirSync(folder, { recursive: true, mode: FOLDER_OF_OWNER });
		copyFileSync(backup, aside);
		chmodSync(aside, OWNER_ONLY);
		toDisk(aside);
		renameSync(aside, file);
		toDisk(folder);
		return ok({ from: backup, file, examined });
	} catch (error) {
		rmSync(aside, { force: true });
		return fail(`Nothing was restored: ${error instanceof Error ? error.message : String(error)}.`);
	}
}
