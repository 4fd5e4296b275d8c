import { eq, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/open';
import { caseOutlook } from '../db/schema';
import { isBusy } from '../heavy/busy';
import { stampOf, turned, type Outlook } from '../db/outlook';
import type { HeavyWork } from '../heavy/tasks';

/** Works out how long cases may still take, one after the other and behind everything that somebody waits for. */
export class Outlooks {
	private readonly waiting = new Set<string>();
	private readonly unmeasured = new Set<string>();
	private readonly listeners = new Map<string, Set<(stamp: string) => void>>();
	private running = false;
	private readonly ofCase;

	constructor(
		private readonly db: Database,
		private readonly log: Logger,
		private readonly thinking: Pick<HeavyWork, 'ask'>
	) {
		this.ofCase = db
			.select()
			.from(caseOutlook)
			.where(eq(caseOutlook.caseId, sql.placeholder('caseId')))
			.prepare();
	}

	async read(caseId: string): Promise<Outlook | null> {
		const [row] = await this.ofCase.all({ caseId });
		return row ?? null;
	}

	/**
	 * What was worked out for a case; anew in the background where its thread has grown since, or the shop knows something
	 * else.
	 */
	async of(caseId: string, now: Pick<Outlook, 'seq' | 'known'>): Promise<Outlook | null> {
		const outlook = await this.read(caseId);
		this.keepUp(caseId, outlook, now);
		return outlook;
	}

	/** Has it worked out anew where what was read is of before. */
	keepUp(caseId: string, outlook: Outlook | null, { seq, known }: Pick<Outlook, 'seq' | 'known'>): void {
		if (!outlook || outlook.seq < seq || outlook.known !== known) this.later(caseId);
	}

	later(caseId: string): void {
		this.waiting.add(caseId);
		if (!this.running) void this.run();
	}

	/** Calls back with its stamp whenever the next step of a case was worked out anew in this process. Returns how to stop. */
	listen(caseId: string, onNews: (stamp: string) => void): () => void {
		const set = this.listeners.get(caseId) ?? new Set();
		set.add(onNews);
		this.listeners.set(caseId, set);
		return () => {
			set.delete(onNews);
			if (set.size === 0) this.listeners.delete(caseId);
		};
	}

	private async workOutNext(caseId: string): Promise<void> {
		const { seq, known, next } = await this.thinking.ask('nextStep', caseId);
		const worked = {
			seq,
			known,
			nextTitle: next?.title ?? null,
			nextWhy: next?.why ?? null,
			nextPath: next?.path ?? null
		};
		await this.db
			.insert(caseOutlook)
			.values({ caseId, ...worked })
			.onConflictDoUpdate({ target: caseOutlook.caseId, set: worked });
		for (const tell of this.listeners.get(caseId) ?? []) tell(stampOf(worked));
	}

	private async workOutMinutes(caseId: string): Promise<void> {
		const minutes = await this.thinking.ask('minutesToGo', caseId, { patient: true });
		const before = await this.read(caseId);
		await this.db
			.update(caseOutlook)
			.set({ ...minutes, ...turned(before, before?.seq ?? 0, minutes.meanMinutes) })
			.where(eq(caseOutlook.caseId, caseId));
	}

	private async tried(caseId: string, work: () => Promise<void>): Promise<void> {
		try {
			await work();
		} catch (error) {
			// Whoever looks at the case next asks for it again.
			if (!isBusy(error))
				this.log.error({ err: error, caseId }, 'what comes next on a case could not be worked out');
		}
	}

	private async run(): Promise<void> {
		this.running = true;
		for (;;) {
			const [caseId] = this.waiting;
			if (caseId === undefined) break;
			this.waiting.delete(caseId);
			this.unmeasured.delete(caseId);
			this.unmeasured.add(caseId);
			await this.tried(caseId, () => this.workOutNext(caseId));
			// What comes next is waited for; how long it may take is worked out when nobody waits.
			while (this.waiting.size === 0 && this.unmeasured.size > 0) {
				const [one = ''] = this.unmeasured;
				this.unmeasured.delete(one);
				await this.tried(one, () => this.workOutMinutes(one));
			}
		}
		this.running = false;
	}
}
