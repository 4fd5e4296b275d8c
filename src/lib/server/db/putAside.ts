import { desc, eq, isNull } from 'drizzle-orm';
import type { Database } from './open';
import { caseRecord, putAside } from './schema';

/** Work that its thread did not take. */
export interface AsideWork {
	id: string;
	caseId: string;
	caseNumber: number;
	kind: string;
	author: string;
	/** The entry's payload as far as it had come, JSON. */
	draft: string;
	why: string;
	at: string;
}

/** A lead looks through this many at a time. */
const MOST_SHOWN = 50;

/** Work that its thread did not take, for the leads of the shop. */
export class PutAside {
	constructor(private readonly db: Database) {}

	/** What no lead has looked at, newest first. */
	async unseen(): Promise<AsideWork[]> {
		return this.db
			.select({
				id: putAside.id,
				caseId: putAside.caseId,
				caseNumber: caseRecord.number,
				kind: putAside.kind,
				author: putAside.authorName,
				draft: putAside.draft,
				why: putAside.why,
				at: putAside.at
			})
			.from(putAside)
			.innerJoin(caseRecord, eq(caseRecord.id, putAside.caseId))
			.where(isNull(putAside.seenBy))
			.orderBy(desc(putAside.at))
			.limit(MOST_SHOWN);
	}

	async seen(id: string, byName: string): Promise<void> {
		await this.db.update(putAside).set({ seenBy: byName }).where(eq(putAside.id, id));
	}
}
