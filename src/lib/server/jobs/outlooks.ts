import { eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/open';
import { caseOutlook } from '../db/schema';

/** Minutes still to go of a case, from thread of a length. */
export interface Outlook {
	seq: number;
	meanMinutes: number | null;
	lowMinutes: number | null;
	highMinutes: number | null;
	/** The next step as the reasoning has it; null = as the thread's order says. */
	nextTitle: string | null;
	nextWhy: string | null;
}

type WorkOut = (caseId: string) => Promise<Outlook>;

/** Works out how long cases may still take, one after the other and behind everything that somebody waits for. */
export class Outlooks {
	private readonly waiting = new Set<string>();
	private running = false;

	constructor(
		private readonly db: Database,
		private readonly log: Logger,
		private readonly workOut: WorkOut
	) {}

	async read(caseId: string): Promise<Outlook | null> {
		const [row] = await this.db.select().from(caseOutlook).where(eq(caseOutlook.caseId, caseId));
		return row ?? null;
	}

	/** What is known of a case; worked out anew in the background where its thread has grown since. */
	async of(caseId: string, seq: number): Promise<Outlook | null> {
		const known = await this.read(caseId);
		if (!known || known.seq < seq) this.later(caseId);
		return known;
	}

	later(caseId: string): void {
		this.waiting.add(caseId);
		if (!this.running) void this.run();
	}

	private async run(): Promise<void> {
		this.running = true;
		for (;;) {
			const [caseId] = this.waiting;
			if (caseId === undefined) break;
			this.waiting.delete(caseId);
			try {
				const outlook = await this.workOut(caseId);
				await this.db
					.insert(caseOutlook)
					.values({ caseId, ...outlook })
					.onConflictDoUpdate({ target: caseOutlook.caseId, set: outlook });
			} catch (error) {
				this.log.error({ err: error, caseId }, 'how long a case may still take could not be worked out');
			}
			// Whoever waits for a page comes first.
			await new Promise((resolve) => setImmediate(resolve));
		}
		this.running = false;
	}
}
