import { eq, inArray, lte, sql } from 'drizzle-orm';
import { ulid } from 'ulid';
import type { Logger } from 'pino';
import type { Database } from './db/open';
import { entry, peer } from './db/schema';
import type { Threads } from './db/threads';
import { GONE_S } from './db/vehicleHolds';

/** How often a server says that it lives, and asks what the others wrote. */
export interface Beat {
	aliveMs: number;
	newsMs: number;
}
const BEAT: Beat = { aliveMs: 5_000, newsMs: 1_000 };
/** Entries that are told at once; more come with the next question. */
const MOST_NEWS = 1_000;

interface Told {
	log: Logger;
	/** Where this server is reached. */
	origin: string;
	threads: Pick<Threads, 'heard'>;
}

/**
 * The servers that share one database. Each says that it lives, and asks once a second which threads have grown, so that a case
 * open here goes on when something is written there. A server with a file of its own is alone and does neither.
 */
export class Peers {
	readonly id = ulid();
	private readonly timers: NodeJS.Timeout[] = [];
	private lastAt = 0;
	private onDeath: () => Promise<unknown> = () => Promise.resolve();

	constructor(
		private readonly db: Database,
		private readonly told: Told,
		private readonly beat: Beat = BEAT
	) {}

	/**
	 * Says for the first time that it lives: before anything of it is held.
	 *
	 * @param onDeath called when another server has died: brings what it left to an end
	 */
	async begin(onDeath: () => Promise<unknown>): Promise<void> {
		this.onDeath = onDeath;
		await this.live();
		const [last] = await this.db.select({ at: sql<number>`COALESCE(MAX(rowid), 0)` }).from(entry);
		this.lastAt = last?.at ?? 0;
		this.every(this.beat.aliveMs, () => this.live());
		this.every(this.beat.newsMs, () => this.hear());
	}

	/** Where the others that live are reached. */
	async others(): Promise<string[]> {
		const rows = await this.db
			.select({ id: peer.id, origin: peer.origin })
			.from(peer)
			.where(sql`${peer.seenAt} > unixepoch() - ${GONE_S}`);
		return rows.flatMap(({ id, origin }) => (id === this.id ? [] : [origin]));
	}

	async end(): Promise<void> {
		for (const timer of this.timers) clearInterval(timer);
		await this.db.delete(peer).where(eq(peer.id, this.id));
	}

	private every(ms: number, work: () => Promise<void>): void {
		let busy = false;
		const timer = setInterval(() => {
			if (busy) return;
			busy = true;
			work()
				// That the database is out of reach is told by whoever asks it; this goes on trying.
				.catch((error: unknown) => this.told.log.debug({ err: error }, 'the other servers were not asked'))
				.finally(() => (busy = false));
		}, ms);
		timer.unref();
		this.timers.push(timer);
	}

	private async live(): Promise<void> {
		const seenAt = sql`unixepoch()`;
		await this.db
			.insert(peer)
			.values({ id: this.id, origin: this.told.origin, seenAt })
			.onConflictDoUpdate({ target: peer.id, set: { seenAt } });
		// Each that is found dead is brought to an end once; found by two servers at once, what it left has ids that are taken once.
		const dead = await this.db
			.select({ id: peer.id })
			.from(peer)
			.where(lte(peer.seenAt, sql`unixepoch() - ${GONE_S}`));
		if (dead.length === 0) return;
		await this.onDeath();
		await this.db.delete(peer).where(
			inArray(
				peer.id,
				dead.map(({ id }) => id)
			)
		);
	}

	/** Rows of threads are only ever added, so their numbers only ever grow. */
	private async hear(): Promise<void> {
		const rows = await this.db
			.select({ at: sql<number>`rowid`, caseId: entry.caseId, seq: entry.seq })
			.from(entry)
			.where(sql`rowid > ${this.lastAt}`)
			.orderBy(sql`rowid`)
			.limit(MOST_NEWS);
		for (const { at, caseId, seq } of rows) {
			this.lastAt = at;
			this.told.threads.heard(caseId, seq);
		}
	}
}
