import { and, asc, desc, eq, gt, inArray } from 'drizzle-orm';
import { EntryDraft, type Entry, type EntryKind } from '../../case/entry';
import { entryHash, FIRST_PREVIOUS } from '../../case/hashChain';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { entry } from './schema';

export interface Author {
	id: string;
	name: string;
}

export type AppendError =
	{ kind: 'taken'; text: string } | { kind: 'no-target'; text: string } | { kind: 'sealed'; text: string };

/** Two servers on one database may both aim for the next place; the loser looks again. */
const MOST_TRIES = 50;

type Row = typeof entry.$inferSelect;

/**
 * Reads and grows the threads. There is no way here to change or remove an entry, and the database would refuse it.
 */
export class Threads {
	private readonly queues = new Map<string, Promise<unknown>>();
	private readonly listeners = new Map<string, Set<(seq: number) => void>>();

	constructor(
		private readonly db: Database,
		private readonly now: () => Date = () => new Date()
	) {}

	async read(caseId: string, afterSeq = 0): Promise<Entry[]> {
		const rows = await this.db
			.select()
			.from(entry)
			.where(and(eq(entry.caseId, caseId), gt(entry.seq, afterSeq)))
			.orderBy(asc(entry.seq));
		return rows.map(fromRow);
	}

	/** Only entries of some kinds, of several cases at once: what is asked of many threads need not read their scans. */
	async readKinds(caseIds: string[], kinds: readonly EntryKind[]): Promise<Entry[]> {
		if (caseIds.length === 0) return [];
		const rows = await this.db
			.select()
			.from(entry)
			.where(and(inArray(entry.caseId, caseIds), inArray(entry.kind, [...kinds])))
			.orderBy(asc(entry.seq));
		return rows.map(fromRow);
	}

	async headSeq(caseId: string): Promise<number> {
		return (await this.head(caseId))?.seq ?? 0;
	}

	/**
	 * Puts an entry at the end of its thread. The promise resolves only when the entry is on disk. The same id with the
	 * same content again gives back what is stored; with other content it is refused.
	 */
	append(draft: EntryDraft, author: Author): Promise<Result<Entry, AppendError>> {
		const before = this.queues.get(draft.caseId) ?? Promise.resolve();
		const mine = before.catch(() => undefined).then(() => this.appendNow(draft, author));
		const settled = mine
			.catch(() => undefined)
			.then(() => {
				if (this.queues.get(draft.caseId) === settled) this.queues.delete(draft.caseId);
			});
		this.queues.set(draft.caseId, settled);
		return mine;
	}

	/** Calls back with the new head whenever a thread grows in this process. Returns how to stop. */
	listen(caseId: string, onGrowth: (seq: number) => void): () => void {
		const set = this.listeners.get(caseId) ?? new Set();
		set.add(onGrowth);
		this.listeners.set(caseId, set);
		return () => {
			set.delete(onGrowth);
			if (set.size === 0) this.listeners.delete(caseId);
		};
	}

	/**
	 * Lays a thread down that was written elsewhere, as it is: the caller has checked its chain. Within a transaction of the
	 * caller's, so that a case comes in whole or not at all.
	 */
	async takeIn(tx: Pick<Database, 'insert'>, entries: readonly Entry[]): Promise<void> {
		for (const one of entries) await tx.insert(entry).values(toRow(one));
	}

	private async appendNow(draft: EntryDraft, author: Author): Promise<Result<Entry, AppendError>> {
		for (let attempt = 0; attempt < MOST_TRIES; attempt++) {
			const [known] = await this.db.select().from(entry).where(eq(entry.id, draft.id));
			if (known) return sameAsKnown(fromRow(known), draft);
			const refused = await this.refusal(draft);
			if (refused) return fail(refused);
			const head = await this.head(draft.caseId);
			const stamped = {
				...draft,
				seq: (head?.seq ?? 0) + 1,
				authorId: author.id,
				authorName: author.name,
				receivedAt: this.now().toISOString(),
				previousHash: head?.hash ?? FIRST_PREVIOUS
			} as Omit<Entry, 'hash'>;
			const whole = { ...stamped, hash: entryHash(stamped) } as Entry;
			try {
				await this.db.insert(entry).values(toRow(whole));
			} catch (error) {
				if (isTaken(error)) continue;
				throw error;
			}
			for (const tell of this.listeners.get(draft.caseId) ?? []) tell(whole.seq);
			return ok(whole);
		}
		throw new Error(`no free place on thread ${draft.caseId} after ${MOST_TRIES} tries`);
	}

	private async refusal(draft: EntryDraft): Promise<AppendError | null> {
		const [signed] = await this.db
			.select({ seq: entry.seq })
			.from(entry)
			.where(and(eq(entry.caseId, draft.caseId), eq(entry.kind, 'signature')))
			.limit(1);
		if (signed)
			return { kind: 'sealed', text: 'This case is signed: its thread is closed. Open a comeback.' };
		if (!draft.supersedes) return null;
		const [target] = await this.db.select().from(entry).where(eq(entry.id, draft.supersedes.entryId));
		if (!target || target.caseId !== draft.caseId || target.kind !== draft.kind) {
			return {
				kind: 'no-target',
				text: 'The entry to correct is not on this thread, or is of another kind.'
			};
		}
		return null;
	}

	private async head(caseId: string): Promise<{ seq: number; hash: string } | null> {
		const [head] = await this.db
			.select({ seq: entry.seq, hash: entry.hash })
			.from(entry)
			.where(eq(entry.caseId, caseId))
			.orderBy(desc(entry.seq))
			.limit(1);
		return head ?? null;
	}
}

function sameAsKnown(known: Entry, draft: EntryDraft): Result<Entry, AppendError> {
	// The time of a repeated sending may differ; what it says may not.
	const content = (e: EntryDraft) => JSON.stringify([e.caseId, e.kind, e.version, e.payload, e.supersedes]);
	if (content(EntryDraft.parse(known)) === content(EntryDraft.parse(draft))) return ok(known);
	return fail({ kind: 'taken', text: 'An entry with this id is already there and says something else.' });
}

function toRow(whole: Entry): typeof entry.$inferInsert {
	return {
		...whole,
		payload: JSON.stringify(whole.payload),
		supersedes: whole.supersedes ? JSON.stringify(whole.supersedes) : null
	};
}

function fromRow(row: Row): Entry {
	return {
		...row,
		payload: JSON.parse(row.payload),
		supersedes: row.supersedes ? JSON.parse(row.supersedes) : null
	} as Entry;
}

/** Whether another writer got this id or this place first (unique constraint). */
export function isTaken(error: unknown): boolean {
	for (let e = error; e instanceof Error; e = e.cause as Error) {
		if (/UNIQUE constraint failed|SQLITE_CONSTRAINT/.test(e.message))
			return /UNIQUE|PRIMARYKEY/.test(e.message);
	}
	return false;
}
