import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { EntryDraft, type Entry, type EntryKind } from '../../case/entries/entry';
import { checkChain, entryHash, FIRST_PREVIOUS, type ChainCheck } from '../../case/thread/hashChain';
import { knownEntry, type RawEntry } from '../../case/thread/knownEntry';
import { parsedOrText } from '../../core/jsonText';
import { fail, ok, type Result } from '../../core/result';
import type { Database } from './open';
import { caseRecord, entry } from './schema';
import { ThreadCache, type KeptThread } from './threadCache';

export interface Author {
	id: string;
	name: string;
}

/** `busy` = work on the vehicle is under way, `moved` = the thread has grown since it was looked at. */
export interface AppendError {
	kind: 'taken' | 'no-target' | 'sealed' | 'broken' | 'no-case' | 'begun' | 'busy' | 'moved';
	text: string;
}

export interface AppendOptions {
	/** Hash of the last entry that whoever writes has seen: anything that came since is a reason to look again. */
	afterHead?: string;
}

/** Two servers on one database may both aim for the next place; the loser looks again. */
const MOST_TRIES = 50;
/** Entries that are laid down in one go: with a database elsewhere each by itself would be a round trip. */
const TOGETHER = 50;

type Row = typeof entry.$inferSelect;

/**
 * Reads and grows the threads. There is no way here to change or remove an entry, and the database would refuse it. Threads
 * that are in use are kept in memory: entries never change, so that only what came since is read.
 */
export class Threads {
	private readonly queues = new Map<string, Promise<unknown>>();
	private readonly listeners = new Map<string, { told: number; calls: Set<(seq: number) => void> }>();
	private readonly cache = new ThreadCache();

	private readonly grownSince;

	constructor(
		private readonly db: Database,
		private readonly now: () => Date = () => new Date()
	) {
		this.grownSince = db
			.select()
			.from(entry)
			.where(and(eq(entry.caseId, sql.placeholder('caseId')), gt(entry.seq, sql.placeholder('after'))))
			.orderBy(asc(entry.seq))
			.prepare();
	}

	async read(caseId: string, afterSeq = 0): Promise<Entry[]> {
		return (await this.kept(caseId)).entries.slice(afterSeq);
	}

	/** Why the thread is not as it was written; null where it is. */
	async brokenReason(caseId: string): Promise<string | null> {
		return reasonOf((await this.kept(caseId)).chain);
	}

	/** Reads and checks the whole thread from disk, whatever is kept of it in memory, and keeps on record what came of it. */
	async check(caseId: string): Promise<ChainCheck> {
		this.cache.drop(caseId);
		const { chain } = await this.kept(caseId);
		return chain;
	}

	/** Only entries of some kinds, of several cases at once: what is asked of many threads need not read their scans. */
	async readKinds(caseIds: string[], kinds: readonly EntryKind[]): Promise<Entry[]> {
		if (caseIds.length === 0) return [];
		const rows = await this.db
			.select()
			.from(entry)
			.where(and(inArray(entry.caseId, caseIds), inArray(entry.kind, [...kinds])))
			.orderBy(asc(entry.seq));
		return rows.map((row) => knownEntry(rawOf(row)));
	}

	async headSeq(caseId: string): Promise<number> {
		const [head] = await this.db
			.select({ seq: sql<number>`COALESCE(MAX(${entry.seq}), 0)` })
			.from(entry)
			.where(eq(entry.caseId, caseId));
		return head?.seq ?? 0;
	}

	/**
	 * Puts an entry at the end of its thread. The promise resolves only when the entry is on disk. The same id with the
	 * same content again gives back what is stored; with other content it is refused.
	 */
	append(
		draft: EntryDraft,
		author: Author,
		options: AppendOptions = {}
	): Promise<Result<Entry, AppendError>> {
		const before = this.queues.get(draft.caseId) ?? Promise.resolve();
		const mine = before.catch(() => undefined).then(() => this.appendNow(draft, author, options));
		const settled = mine
			.catch(() => undefined)
			.then(() => {
				if (this.queues.get(draft.caseId) === settled) this.queues.delete(draft.caseId);
			});
		this.queues.set(draft.caseId, settled);
		return mine;
	}

	/** Why an entry with this id could not be put on the thread now; null where it could. Asked before work that cannot be undone. */
	async refusalOf(caseId: string, id: string): Promise<AppendError | null> {
		const [known] = await this.db.select({ id: entry.id }).from(entry).where(eq(entry.id, id));
		if (known) return TAKEN;
		return this.closedReason(caseId, await this.kept(caseId));
	}

	/** Calls back with the new head whenever a thread grows. Returns how to stop. */
	listen(caseId: string, onGrowth: (seq: number) => void): () => void {
		const kept = this.listeners.get(caseId) ?? { told: 0, calls: new Set() };
		kept.calls.add(onGrowth);
		this.listeners.set(caseId, kept);
		return () => {
			kept.calls.delete(onGrowth);
			if (kept.calls.size === 0) this.listeners.delete(caseId);
		};
	}

	/** Takes the news that a thread has grown, here or by another server; what was told already is not told again. */
	heard(caseId: string, seq: number): void {
		const kept = this.listeners.get(caseId);
		if (!kept || seq <= kept.told) return;
		kept.told = seq;
		for (const tell of kept.calls) tell(seq);
	}

	/**
	 * Lays a thread down that was written elsewhere, as it is: the caller has checked its chain and its rules. Within a
	 * transaction of the caller's, so that a case comes in whole or not at all.
	 */
	async takeIn(tx: Pick<Database, 'insert'>, entries: readonly RawEntry[]): Promise<void> {
		for (let from = 0; from < entries.length; from += TOGETHER)
			await tx.insert(entry).values(entries.slice(from, from + TOGETHER).map(toRow));
	}

	private async appendNow(
		draft: EntryDraft,
		author: Author,
		{ afterHead }: AppendOptions
	): Promise<Result<Entry, AppendError>> {
		for (let attempt = 0; attempt < MOST_TRIES; attempt++) {
			const thread = await this.kept(draft.caseId);
			const head = thread.entries.at(-1);
			const moved = afterHead !== undefined && afterHead !== head?.hash ? MOVED : null;
			const refused = closedBy(thread) ?? refusalIn(thread.entries, draft) ?? moved;
			if (refused) return (await this.knownAs(draft)) ?? fail(refused);
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
				if (isTaken(error)) {
					const known = await this.knownAs(draft);
					if (known) return known;
					continue;
				}
				const guarded = guardedBy(error);
				if (guarded) return fail(guarded);
				throw error;
			}
			this.heard(draft.caseId, whole.seq);
			return ok(whole);
		}
		throw new Error(`no free place on thread ${draft.caseId} after ${MOST_TRIES} tries`);
	}

	/** What is stored under an entry's id already: the same, or something else; null where nothing is. */
	private async knownAs(draft: EntryDraft): Promise<Result<Entry, AppendError> | null> {
		const [known] = await this.db.select().from(entry).where(eq(entry.id, draft.id));
		return known ? sameAsKnown(known, draft) : null;
	}

	/** The thread as far as it is kept in memory, with what has come since. */
	private async kept(caseId: string): Promise<KeptThread> {
		const known = this.cache.get(caseId);
		const after = known?.entries.length ?? 0;
		const rows = await this.grownSince.all({ caseId, after });
		if (known && rows.length === 0) return known;
		// Anybody may ask for a case that there is not: nothing is kept of it.
		if (rows.length === 0) return EMPTY;
		const raw = rows.map(rawOf);
		const last = known?.entries.at(-1);
		const chain =
			known && !known.chain.intact
				? known.chain
				: checkChain(raw, last && { seq: last.seq, hash: last.hash });
		// The same thread may have been read by another request meanwhile: it is laid down anew, never added to.
		const thread: KeptThread = { entries: [...(known?.entries ?? []), ...raw.map(knownEntry)], chain };
		this.cache.set(
			caseId,
			thread,
			rows.reduce((sum, row) => sum + row.payload.length, 0)
		);
		if (!known || known.chain.intact !== chain.intact) await this.record(caseId, chain);
		return thread;
	}

	/** The floor says which threads are broken without reading them. */
	private async record(caseId: string, chain: ChainCheck): Promise<void> {
		const [row] = await this.db
			.select({ chainBroken: caseRecord.chainBroken })
			.from(caseRecord)
			.where(eq(caseRecord.id, caseId));
		// Whoever only reads never takes the one lock for writing: a thread that steps back would keep everybody waiting.
		if (!row || row.chainBroken === reasonOf(chain)) return;
		await this.db
			.update(caseRecord)
			.set({ chainBroken: reasonOf(chain) })
			.where(and(eq(caseRecord.id, caseId), sql`${caseRecord.chainBroken} IS NOT ${reasonOf(chain)}`));
	}

	private async closedReason(caseId: string, thread: KeptThread): Promise<AppendError | null> {
		const [row] = await this.db
			.select({ chainBroken: caseRecord.chainBroken })
			.from(caseRecord)
			.where(eq(caseRecord.id, caseId));
		if (!row) return NO_CASE;
		return row.chainBroken ? brokenBy(row.chainBroken) : closedBy(thread);
	}
}

const EMPTY: KeptThread = { entries: [], chain: checkChain([]) };
const NO_CASE: AppendError = { kind: 'no-case', text: 'There is no such case.' };
const brokenBy = (reason: string): AppendError => ({
	kind: 'broken',
	text: `This thread is not as it was written (${reason}): nothing is added to it. Ask a lead.`
});

/** Why nothing more is added to a thread as it was read. */
function closedBy({ chain, entries }: KeptThread): AppendError | null {
	const broken = reasonOf(chain);
	if (broken) return brokenBy(broken);
	return entries.some(({ kind }) => kind === 'signature') ? SEALED : null;
}

const TAKEN: AppendError = {
	kind: 'taken',
	text: 'An entry with this id is already there and says something else.'
};
const SEALED: AppendError = {
	kind: 'sealed',
	text: 'This case is signed: its thread is closed. Open a comeback.'
};
const BEGUN: AppendError = { kind: 'begun', text: 'This case has begun already: a thread begins once.' };
const BUSY: AppendError = {
	kind: 'busy',
	text: 'Work on this vehicle is under way: wait until it is done, or stop it.'
};
const MOVED: AppendError = {
	kind: 'moved',
	text: 'Something was added since you looked: look at it, then sign.'
};

const reasonOf = (chain: ChainCheck): string | null => (chain.intact ? null : chain.reason);

function refusalIn(entries: readonly Entry[], draft: EntryDraft): AppendError | null {
	if (draft.kind === 'case-opened' && entries.some(({ kind }) => kind === 'case-opened')) return BEGUN;
	if (!draft.supersedes) return null;
	const target = entries.find(({ id }) => id === draft.supersedes?.entryId);
	return target?.kind === draft.kind
		? null
		: { kind: 'no-target', text: 'The entry to correct is not on this thread, or is of another kind.' };
}

/** What the database's own guards refuse, each in the words of its trigger. */
function guardedBy(error: unknown): AppendError | null {
	const words = messagesOf(error).join(' ');
	if (words.includes('a thread begins once')) return BEGUN;
	if (words.includes('this case is signed')) return SEALED;
	if (words.includes('this thread is broken')) return brokenBy('it was found changed');
	if (words.includes('FOREIGN KEY constraint failed')) return NO_CASE;
	if (words.includes('work on this vehicle is under way')) return BUSY;
	return null;
}

function sameAsKnown(known: Row, draft: EntryDraft): Result<Entry, AppendError> {
	// The time of a repeated sending may differ; what it says may not.
	const content = (e: EntryDraft) => JSON.stringify([e.caseId, e.kind, e.version, e.payload, e.supersedes]);
	const stored = EntryDraft.safeParse(rawOf(known));
	if (stored.success && content(stored.data) === content(EntryDraft.parse(draft)))
		return ok(knownEntry(rawOf(known)));
	return fail(TAKEN);
}

function toRow(whole: RawEntry | Entry): typeof entry.$inferInsert {
	return {
		...whole,
		payload: JSON.stringify(whole.payload),
		supersedes: whole.supersedes ? JSON.stringify(whole.supersedes) : null
	};
}

const rawOf = (row: Row): RawEntry => ({
	...row,
	payload: parsedOrText(row.payload),
	supersedes: row.supersedes ? (parsedOrText(row.supersedes) as RawEntry['supersedes']) : null
});

const messagesOf = (error: unknown): string[] => {
	const messages: string[] = [];
	for (let e = error; e instanceof Error; e = e.cause as Error) messages.push(e.message);
	return messages;
};

/** Whether another writer got this id or this place first (unique constraint). */
export const isTaken = (error: unknown): boolean =>
	messagesOf(error).some(
		(message) =>
			/UNIQUE constraint failed|SQLITE_CONSTRAINT/.test(message) && /UNIQUE|PRIMARYKEY/.test(message)
	);
