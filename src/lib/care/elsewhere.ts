import { basename, join } from 'node:path';
import { fail, ok, type Result } from '../core/result';
import type { FileStore } from '../objects/objectStore';
import { backupsIn, isBackupName } from './backUp';

/** A backup that lies in another place too. */
export interface Sent {
	name: string;
	/** Whether it was brought there now; else it lay there already. */
	now: boolean;
	/** Older ones that were taken away there. */
	removed: string[];
}

const why = (error: unknown): string =>
	error instanceof Error ? error.message || error.name : String(error);

/** Backups in a place elsewhere, the newest first. */
const backupsAt = async (store: FileStore): Promise<string[]> =>
	(await store.names()).filter(isBackupName).sort().reverse();

/**
 * Brings a finished backup to a place elsewhere, under its own name; one that lies there is not brought again.
 *
 * @param keep how many that place keeps; all where absent
 */
export async function sendBackup(file: string, store: FileStore, keep?: number): Promise<Result<Sent>> {
	const name = basename(file);
	try {
		const now = !(await store.names()).includes(name);
		if (now) await store.bring(name, file);
		const removed = keep === undefined ? [] : (await backupsAt(store)).slice(keep);
		for (const old of removed) await store.remove(old);
		return ok({ name, now, removed });
	} catch (error) {
		return fail(`The backup could not be brought elsewhere: ${why(error)}.`);
	}
}

/** Brings the newest backup of a folder elsewhere; null where there is none yet. */
export async function sendNewest(
	folder: string,
	store: FileStore,
	keep: number
): Promise<Result<Sent | null>> {
	const [newest] = backupsIn(folder);
	return newest === undefined ? ok(null) : sendBackup(newest, store, keep);
}

/** Fetches the newest backup of a place elsewhere into a folder. @returns the file */
export async function fetchNewest(store: FileStore, folder: string): Promise<Result<string>> {
	try {
		const [newest] = await backupsAt(store);
		if (newest === undefined) return fail('There is no backup there.');
		const file = join(folder, newest);
		await store.fetch(newest, file);
		return ok(file);
	} catch (error) {
		return fail(`No backup could be fetched: ${why(error)}.`);
	}
}
