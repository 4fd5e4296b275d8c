import { readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { OWNER_ONLY } from './dataFolder';

/** The server that works on a database says so this often, and is taken for gone after so long. */
const SAID_EACH_MS = 10_000;
const GONE_AFTER_MS = 60_000;

/** Who works on a database. */
export interface Holder {
	pid: number;
	host: string;
}

const lockOf = (file: string): string => `${file}.lock`;

const isAlive = (pid: number): boolean => {
	try {
		process.kill(pid, 0);
		return true;
	} catch (error) {
		// It is there and belongs to somebody else.
		return (error as NodeJS.ErrnoException).code === 'EPERM';
	}
};

/** The server that works on a database file; null where none does, or the one that did has died. */
export function holderOf(file: string): Holder | null {
	let holder: Holder;
	let saidAt: number;
	try {
		const lock = lockOf(file);
		holder = JSON.parse(readFileSync(lock, 'utf8')) as Holder;
		saidAt = statSync(lock).mtimeMs;
	} catch {
		// None was written, or its writer was cut off: then nobody works on it.
		return null;
	}
	if (Date.now() - saidAt > GONE_AFTER_MS) return null;
	if (holder.host !== hostname()) return holder;
	// In a container the server after a crash has the number of the one before.
	return holder.pid !== process.pid && isAlive(holder.pid) ? holder : null;
}

/** A database that another server works on. */
export class InUse extends Error {
	constructor(file: string, { pid, host }: Holder) {
		super(
			`Another server works on ${file} (process ${pid} on ${host}). One database has one server: stop the other, or choose another folder.`
		);
	}
}

/**
 * Takes a database file for this server. Throws {@link InUse} where another one works on it.
 *
 * @returns how to give it back
 */
export function holdDatabase(file: string): () => void {
	const lock = lockOf(file);
	const held = holderOf(file);
	if (held) throw new InUse(file, held);
	rmSync(lock, { force: true });
	try {
		writeFileSync(lock, JSON.stringify({ pid: process.pid, host: hostname() } satisfies Holder), {
			mode: OWNER_ONLY,
			// Two servers that start at once: one is first.
			flag: 'wx'
		});
	} catch (error) {
		const first = holderOf(file);
		if (first) throw new InUse(file, first);
		throw error;
	}
	const timer = setInterval(() => {
		try {
			utimesSync(lock, new Date(), new Date());
		} catch {
			// A folder that was taken away is told of by whatever is written next.
		}
	}, SAID_EACH_MS);
	timer.unref();
	return () => {
		clearInterval(timer);
		rmSync(lock, { force: true });
	};
}
