import Dexie, { type EntityTable } from 'dexie';
import { keyOf, type Recorded, type Waiting } from './recorded';

type Body = Pick<Recorded, 'body'> & { key: string };
/** One that the server has stored, with the hash that it keeps it by: another names it so. */
interface Arrived {
	key: string;
	id: string;
	sha256: string;
	/** Milliseconds since 1970. */
	at: number;
}

const same = (a: Recorded['body'], b: Recorded['body']): boolean =>
	typeof a === 'string' || typeof b === 'string'
		? a === b
		: a.length === b.length && a.every((byte, i) => byte === b[i]);

const NAME = 'jaldi';
/** A hash is asked for by what was recorded beside its photo, or never. */
const HASH_KEPT_MS = 30 * 24 * 3600_000;

/** Something else waits here under the same id: neither may take the other’s place. */
export class KeptAnother extends Error {
	constructor() {
		super('Something else is kept here under this id: load the page again.');
	}
}

/** What waits on this device, in the order that it was recorded in; it outlives the page, the browser and a lost battery. */
export class WaitingStore {
	private readonly db: Dexie & {
		waiting: EntityTable<Waiting, 'seq'>;
		bodies: EntityTable<Body, 'key'>;
		arrived: EntityTable<Arrived, 'key'>;
	};

	constructor(name = NAME) {
		// Strict: what was kept is on the disk, not on its way there.
		this.db = new Dexie(name, { chromeTransactionDurability: 'strict' }) as typeof this.db;
		this.db.version(1).stores({ waiting: '++seq, &key', bodies: 'key', arrived: 'key, id, at' });
	}

	/** Kept once more, it changes nothing. Rejects where this device has no room, and with {@link KeptAnother}. */
	keep({ body, ...one }: Recorded, by: { id: string; name: string }, at: string): Promise<void> {
		const { db } = this;
		const key = keyOf(one);
		const bytes = typeof body === 'string' ? body.length : body.byteLength;
		return db.transaction('rw', db.waiting, db.bodies, async () => {
			const old = await db.bodies.get(key);
			if (old && !same(old.body, body)) throw new KeptAnother();
			if (old) return;
			await db.bodies.add({ key, body });
			await db.waiting.add({
				...one,
				key,
				bytes,
				by: by.id,
				byName: by.name,
				at
			} as Waiting);
		});
	}

	all(): Promise<Waiting[]> {
		return this.db.waiting.orderBy('seq').toArray();
	}

	async isWaiting(key: string): Promise<boolean> {
		return (await this.db.waiting.where({ key }).count()) > 0;
	}

	async bodyOf(key: string): Promise<Recorded['body'] | null> {
		return (await this.db.bodies.get(key))?.body ?? null;
	}

	/** Stored by the server: it waits no more, and its hash is kept for what names it. */
	arrived({ key, id }: Waiting, sha256: string | null, now: number): Promise<void> {
		const { db } = this;
		return db.transaction('rw', db.waiting, db.bodies, db.arrived, async () => {
			if (sha256 !== null) await db.arrived.put({ key, id, sha256, at: now });
			await db.arrived
				.where('at')
				.below(now - HASH_KEPT_MS)
				.delete();
			await this.drop(key);
		});
	}

	/** The hash that the server keeps a photo by; null = it has not said so. */
	async hashOf(id: string): Promise<string | null> {
		const [kept] = await this.db.arrived.where({ id }).toArray();
		return kept?.sha256 ?? null;
	}

	async refuse(key: string, refused: string, signed: boolean): Promise<void> {
		await this.db.waiting.where({ key }).modify({ refused, signed });
	}

	/** Lets one that was refused be sent once more. */
	async again(key: string): Promise<void> {
		await this.db.waiting.where({ key }).modify((one: Waiting) => {
			delete one.refused;
			delete one.signed;
		});
	}

	forget(key: string): Promise<void> {
		const { db } = this;
		return db.transaction('rw', db.waiting, db.bodies, () => this.drop(key));
	}

	/** @param follow told at once and after every change, also one of another tab. @returns how to stop */
	watch(follow: (all: Waiting[]) => void, failed: () => void): () => void {
		const subscription = Dexie.liveQuery(() => this.all()).subscribe({ next: follow, error: failed });
		return () => subscription.unsubscribe();
	}

	close(): void {
		this.db.close();
	}

	private async drop(key: string): Promise<void> {
		await this.db.waiting.where({ key }).delete();
		await this.db.bodies.delete(key);
	}
}
