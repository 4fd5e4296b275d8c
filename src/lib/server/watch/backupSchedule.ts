import { mkdirSync, statSync } from 'node:fs';
import { backupsIn, type Backup } from '../../care/backUp';
import { FOLDER_OF_OWNER } from '../../care/dataFolder';
import type { Sent } from '../../care/elsewhere';
import { fail, ok, type Result } from '../../core/result';
import type { BucketPlace } from '../../objects/objectStore';

/** A server that makes its own backups: where to, how often, how many are kept. */
export interface BackupPlan {
	to: string;
	everyHours: number;
	keep: number;
	/** A place elsewhere that each is copied to; absent = none. */
	copyTo?: BucketPlace | undefined;
}

export interface BackupState {
	/** When the newest was made, ISO 8601; null = there is none. */
	last: string | null;
	/** Why the last try failed; null = it did not. */
	failed: string | null;
	/** Why the newest does not lie elsewhere too; null = it does, or nobody asked for that. */
	notCopied: string | null;
	/** It is longer ago than was planned, by half. */
	late: boolean;
}

const HOUR_MS = 3_600_000;
const LOOK_EVERY_MS = 5 * 60_000;
/** After one that failed it is tried again no sooner. */
const AGAIN_MS = HOUR_MS;
const LATE = 1.5;

/**
 * Makes backups while the server works, by what lies in their folder: after a start it goes on where it was, and one that somebody
 * made by hand counts. Each is opened and gone through before it has its name.
 */
export class BackupSchedule {
	private timer: NodeJS.Timeout | null = null;
	private running: Promise<void> | null = null;
	private failed: { why: string; atMs: number } | null = null;
	private notCopied: { why: string; atMs: number } | null = null;
	/** The newest that is known to lie elsewhere too. */
	private copied: string | null = null;

	/**
	 * @param plan null = nobody asked for it
	 * @param make makes one, on a thread that nobody waits for
	 * @param told hears of each that was made or failed
	 * @param copy brings the newest elsewhere, on such a thread too
	 */
	constructor(
		readonly plan: BackupPlan | null,
		private readonly make: (plan: BackupPlan, now: Date) => Promise<Result<Backup>>,
		private readonly told: (done: Result<Backup>) => void,
		private readonly copy: (
			plan: BackupPlan & { copyTo: BucketPlace }
		) => Promise<Result<Sent | null>> = () => Promise.resolve(ok(null)),
		private readonly now: () => Date = () => new Date()
	) {}

	begin(): void {
		if (!this.plan) return;
		mkdirSync(this.plan.to, { recursive: true, mode: FOLDER_OF_OWNER });
		this.timer = setInterval(() => void this.whenDue(), LOOK_EVERY_MS);
		this.timer.unref();
		void this.whenDue();
	}

	/** Begins no more. One that is being made has no name yet: it is nobody's backup. */
	end(): void {
		if (this.timer) clearInterval(this.timer);
	}

	/** Makes one if it is time. */
	whenDue(): Promise<void> {
		this.running ??= this.makeIfDue()
			.then(() => this.copyIfDue())
			.finally(() => (this.running = null));
		return this.running;
	}

	/** Null where nobody asked for backups. */
	state(): BackupState | null {
		if (!this.plan) return null;
		const lastMs = this.lastMs();
		return {
			last: lastMs === null ? null : new Date(lastMs).toISOString(),
			failed: this.failed?.why ?? null,
			notCopied: this.notCopied?.why ?? null,
			late: lastMs !== null && this.now().getTime() - lastMs > LATE * this.plan.everyHours * HOUR_MS
		};
	}

	private newest(): string | null {
		try {
			return (this.plan ? backupsIn(this.plan.to)[0] : undefined) ?? null;
		} catch {
			return null;
		}
	}

	private lastMs(): number | null {
		try {
			const newest = this.newest();
			return newest === null ? null : statSync(newest).mtimeMs;
		} catch {
			// The folder is gone, or out of reach: there is none to be seen.
			return null;
		}
	}

	private async makeIfDue(): Promise<void> {
		const { plan } = this;
		if (!plan) return;
		const nowMs = this.now().getTime();
		const lastMs = this.lastMs();
		if (lastMs !== null && nowMs - lastMs < plan.everyHours * HOUR_MS) return;
		if (this.failed && nowMs - this.failed.atMs < AGAIN_MS) return;
		const done = await this.make(plan, this.now()).catch((error: unknown): Result<Backup> => ({
			ok: false,
			error: error instanceof Error ? error.message : String(error)
		}));
		this.failed = done.ok ? null : { why: done.error, atMs: nowMs };
		this.told(done);
	}

	/** Also what was made while that place was out of reach, or before the server was started. */
	private async copyIfDue(): Promise<void> {
		const { plan } = this;
		const newest = this.newest();
		if (!plan?.copyTo || newest === null || newest === this.copied) return;
		const nowMs = this.now().getTime();
		if (this.notCopied && nowMs - this.notCopied.atMs < AGAIN_MS) return;
		const done = await this.copy({ ...plan, copyTo: plan.copyTo }).catch((error: unknown) =>
			fail(error instanceof Error ? error.message : String(error))
		);
		if (done.ok) this.copied = newest;
		this.notCopied = done.ok ? null : { why: done.error, atMs: nowMs };
	}
}
