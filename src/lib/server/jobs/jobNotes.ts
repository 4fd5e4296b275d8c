import { parsedOrText } from '../../core/jsonText';
import { eq, not, type SQL } from 'drizzle-orm';
import type { Database } from '../db/open';
import { linkJob, putAside, user } from '../db/schema';
import type { Author } from '../db/threads';
import { isHeld } from '../db/vehicleHolds';

/** Work that changes a vehicle, or takes long. */
export type NotedKind = 'scan' | 'find' | 'clear' | 'calibrate' | 'key';

/** Work that a server had begun and not ended. */
export interface Unfinished {
	id: string;
	caseId: string;
	kind: NotedKind;
	author: Author;
	/** The entry's payload as far as it had come. */
	draft: unknown;
}

/** Notes of how far work on a vehicle has come, on disk, so that a dead server cannot lose it. */
export class JobNotes {
	constructor(private readonly db: Database) {}

	async write(job: { id: string; caseId: string; authorId: string }, kind: NotedKind, payload: unknown) {
		const draft = JSON.stringify(payload);
		const moment = new Date().toISOString();
		await this.db
			.insert(linkJob)
			.values({ ...job, kind, startedAt: moment, draft })
			.onConflictDoUpdate({ target: linkJob.id, set: { draft, updatedAt: moment } });
	}

	async forget(id: string): Promise<void> {
		await this.db.delete(linkJob).where(eq(linkJob.id, id));
	}

	/** What was noted of one piece of work; null where nothing stands. */
	async of(id: string): Promise<Unfinished | null> {
		return (await this.noted(eq(linkJob.id, id))).at(0) ?? null;
	}

	/** Everything that a stopped server left: what nobody is at. */
	left(): Promise<Unfinished[]> {
		return this.noted(not(isHeld(linkJob.id)));
	}

	/** Takes a piece of work that its thread cannot take out of the way, with all that was written down of it. */
	async putAside(one: Omit<Unfinished, 'kind'> & { kind: NotedKind | 'record' }, why: string): Promise<void> {
		const { id, caseId, kind, author, draft } = one;
		await this.db.transaction(async (tx) => {
			await tx
				.insert(putAside)
				.values({
					id,
					caseId,
					kind,
					authorName: author.name,
					draft: JSON.stringify(draft),
					why,
					at: new Date().toISOString()
				})
				.onConflictDoNothing();
			await tx.delete(linkJob).where(eq(linkJob.id, id));
		});
	}

	private async noted(which?: SQL): Promise<Unfinished[]> {
		const rows = await this.db
			.select()
			.from(linkJob)
			.innerJoin(user, eq(user.id, linkJob.authorId))
			.where(which);
		return rows.map(({ link_job: { id, caseId, kind, draft }, user: author }) => ({
			id,
			caseId,
			kind,
			author: { id: author.id, name: author.name },
			draft: parsedOrText(draft)
		}));
	}
}
