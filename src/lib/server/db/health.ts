/** What can be wrong with the place a database lies in, by the code that it answers with. */
const KINDS = {
	SQLITE_FULL: 'full',
	SQLITE_READONLY: 'read-only',
	SQLITE_CANTOPEN: 'out-of-reach',
	SQLITE_IOERR: 'out-of-reach',
	SQLITE_CORRUPT: 'damaged',
	SQLITE_NOTADB: 'damaged'
} as const;
/** `unreachable` = a database on another machine does not answer, `no-store` = the place of samples and photos does not. */
export type TroubleKind = (typeof KINDS)[keyof typeof KINDS] | 'unreachable' | 'no-store';

/** Each as everybody reads it, on every page while it lasts. */
export const TROUBLE_WORDS: Record<TroubleKind, string> = {
	full: 'The server’s disk is full: nothing can be saved until somebody makes room. What was saved is kept and can be read.',
	'read-only':
		'The server may not write into its data folder: nothing can be saved until that is put right. What was saved can be read.',
	'out-of-reach':
		'The server does not reach its data folder: nothing can be saved until it does. What was saved is kept.',
	unreachable:
		'The server does not reach its database: nothing can be read or saved until it does. What was saved is kept.',
	'no-store':
		'The server does not reach the store of samples and photos: those cannot be saved or read until it does. All else goes on.',
	damaged:
		'The database file is damaged: nothing more is written into it. Stop the server, run “jaldi doctor”, and restore the newest backup.'
};

/** Refused because of the place the database lies in: nothing of it was saved. */
export class DatabaseTrouble extends Error {
	constructor(
		readonly kind: TroubleKind,
		cause?: unknown
	) {
		super(TROUBLE_WORDS[kind], { cause });
	}
}

/** The errors of an error: what a database said is wrapped by whoever asked it. */
function* chainOf(error: unknown): Generator<Error & { code?: unknown }> {
	for (let now = error, depth = 0; now instanceof Error && depth < 8; now = now.cause, depth++) yield now;
}

/** What is wrong with the database's place, by an error; null = it is an error of another kind. */
export function troubleOf(error: unknown): TroubleKind | null {
	for (const one of chainOf(error)) {
		if (one instanceof DatabaseTrouble) return one.kind;
		if (typeof one.code === 'string' && Object.hasOwn(KINDS, one.code))
			return KINDS[one.code as keyof typeof KINDS];
	}
	return null;
}

/** While something is wrong it is tried this often whether it still is. */
const PROBE_MS = 5_000;

export interface Trouble {
	kind: TroubleKind;
	/** ISO 8601. */
	since: string;
}

/**
 * How the database's place is, as the last write found it. A disk that is full mends itself once there is room and something was
 * written; a file that is damaged stays so until the server is started on a good one.
 */
export class DatabaseHealth {
	private trouble: Trouble | null = null;
	private readonly listeners = new Set<(trouble: Trouble | null) => void>();
	private probe: (() => Promise<void>) | null = null;
	private timer: NodeJS.Timeout | null = null;

	constructor(private readonly now: () => Date = () => new Date()) {}

	state(): Trouble | null {
		return this.trouble;
	}

	/** @param probe writes something that changes nothing */
	probeBy(probe: () => Promise<void>): void {
		this.probe = probe;
	}

	/** Throws where nothing may be written: a damaged file would only be damaged more. */
	beforeWriting(): void {
		if (this.trouble?.kind === 'damaged') throw new DatabaseTrouble('damaged');
	}

	/** Something was read, so there is somebody who answers. */
	answered(): void {
		if (this.trouble?.kind === 'unreachable') this.become(null);
	}

	wrote(): void {
		if (this.trouble && this.trouble.kind !== 'damaged') this.become(null);
	}

	/** @returns the error to go on with: one of ours where the place is at fault */
	failed(error: unknown): unknown {
		const kind = troubleOf(error);
		if (!kind) return error;
		this.found(kind);
		return error instanceof DatabaseTrouble ? error : new DatabaseTrouble(kind, error);
	}

	found(kind: TroubleKind): void {
		if (this.trouble?.kind === kind || this.trouble?.kind === 'damaged') return;
		this.become({ kind, since: this.now().toISOString() });
	}

	/** @returns how to hear no more of it */
	follow(tell: (trouble: Trouble | null) => void): () => void {
		this.listeners.add(tell);
		return () => this.listeners.delete(tell);
	}

	private become(trouble: Trouble | null): void {
		this.trouble = trouble;
		if (this.timer) clearInterval(this.timer);
		this.timer = null;
		if (trouble && trouble.kind !== 'damaged') {
			// What it says it has said already; it is tried again until it says nothing.
			this.timer = setInterval(() => void this.probe?.().catch(() => undefined), PROBE_MS);
			this.timer.unref();
		}
		for (const tell of this.listeners) tell(trouble);
	}
}
