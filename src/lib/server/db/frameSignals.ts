import { asc, eq } from 'drizzle-orm';
import { FrameSignalShape } from '../../case/entries/frameSignalShape';
import type { FrameSignal } from '../../core/live/frameSignals';
import type { Database } from './open';
import { frameSignal } from './schema';

/** Signals that this shop knows of in broadcast frames. */
export class FrameSignals {
	constructor(private readonly db: Database) {}

	async all(): Promise<(FrameSignal & { id: string; by: string })[]> {
		const rows = await this.db.select().from(frameSignal).orderBy(asc(frameSignal.savedAt));
		return rows.map(({ id, rule, authorName }) => ({
			...FrameSignalShape.parse(JSON.parse(rule)),
			id,
			by: authorName
		}));
	}

	/** Sent again under the same id it is kept once. */
	async keep(id: string, rule: FrameSignal, authorName: string): Promise<void> {
		await this.db
			.insert(frameSignal)
			.values({ id, rule: JSON.stringify(rule), authorName, savedAt: new Date().toISOString() })
			.onConflictDoNothing();
	}

	async forget(id: string): Promise<void> {
		await this.db.delete(frameSignal).where(eq(frameSignal.id, id));
	}
}
