import { statSync } from 'node:fs';
import { statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import { sql } from 'drizzle-orm';
import { healthOf, type Database } from '../db/open';
import { TROUBLE_WORDS } from '../db/health';
import type { BackupState } from './backupSchedule';

/** Below this a disk is soon full: a recording of a drive takes some megabytes, a photo half of one. */
const LITTLE_ROOM_BYTES = 500_000_000;

export interface ServerHealth {
	/** What a lead should do something about, in sentences; empty = all is well. */
	concerns: string[];
	upSeconds: number;
	memoryBytes: number;
	/** Null where the database lies on another machine. */
	database: { bytes: number; freeBytes: number } | null;
	cases: number;
	entries: number;
}

/**
 * How the server is.
 *
 * @param file of the database; null = on another machine
 * @param backups that the server makes; null = none
 */
export async function healthOfServer(
	db: Database,
	file: string | null,
	backups: BackupState | null = null
): Promise<ServerHealth> {
	const [counted] = (
		await db.run(sql`SELECT (SELECT COUNT(*) FROM case_record), (SELECT MAX(rowid) FROM entry)`)
	).rows;
	const database = file === null ? null : { bytes: sizeOf(file), freeBytes: await roomAt(file) };
	const trouble = healthOf(db).state();
	const concerns = trouble ? [TROUBLE_WORDS[trouble.kind]] : [];
	if (!trouble && database && database.freeBytes < LITTLE_ROOM_BYTES)
		concerns.push('The server’s disk is almost full: make room before it is.');
	if (backups?.failed) concerns.push(`The last backup failed: ${backups.failed}`);
	if (backups?.notCopied) concerns.push(backups.notCopied);
	if (backups?.late && !backups.failed) concerns.push('The newest backup is older than it should be.');
	return {
		concerns,
		upSeconds: process.uptime(),
		memoryBytes: process.memoryUsage().rss,
		database,
		cases: Number(counted?.[0] ?? 0),
		entries: Number(counted?.[1] ?? 0)
	};
}

const sizeOf = (file: string): number =>
	['', '-wal'].reduce((sum, part) => sum + (statSync(file + part, { throwIfNoEntry: false })?.size ?? 0), 0);

async function roomAt(file: string): Promise<number> {
	const { bavail, bsize } = await statfs(dirname(file));
	return bavail * bsize;
}
