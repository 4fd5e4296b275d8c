import { eq } from 'drizzle-orm';
import type { Database } from '../db/open';
import { linkJob, user } from '../db/schema';
import type { Author } from '../db/threads';

/** Work that changes a vehicle, or takes long. */
export type NotedKind = 'scan' | 'clear' | 'calibrate';

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

	async left(): Promise<Unfinished[]> {
		const rows = await this.db.select().from(linkJob).innerJoin(user, eq(user.id, linkJob.authorId));
		return rows.map(({ link_job: { id, caseId, kind, draft }, user: author }) => ({
			id,
			caseId,
			kind,
			author: { id: author.id, name: author.name },
			draft: JSON.parse(draft)
		}));
	}
}
