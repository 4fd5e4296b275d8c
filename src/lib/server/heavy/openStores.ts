import { objectsOf } from '../../objects/s3Store';
import { openDatabase } from '../db/open';
import type { ServiceOptions } from '../serviceOptions';
import { storesOn, type Stores } from '../stores';
import { Turns } from '../turns';

/** Shops that a thread keeps open; those that rest longest make room for others. */
const MOST_OPEN = 16;

interface Opened {
	stores: Promise<Stores>;
	/** Pieces of work under way. */
	busy: number;
}

const openStores = async (shop: ServiceOptions, turns: Turns): Promise<Stores> =>
	storesOn(await openDatabase(shop.databaseUrl, shop.databaseToken), shop.origin, objectsOf(shop), turns);

/** What a thread has open of each shop that it works for: each is told apart by its database, and nothing of one reaches another. */
export class StoresOfShops {
	/** By the database's address, the one that rested longest first. */
	private readonly opened = new Map<string, Opened>();

	private readonly turns = new Turns();

	constructor(
		private readonly open = openStores,
		private readonly most = MOST_OPEN
	) {}

	get count(): number {
		return this.opened.size;
	}

	/** Does work that somebody waits for before any that nobody does, of whatever shop. Else as {@link with}. */
	first<T>(shop: ServiceOptions, work: (stores: Stores) => Promise<T>): Promise<T> {
		return this.turns.first(() => this.with(shop, work));
	}

	/** Does some work with what is stored of a shop, which stays open meanwhile. Throws what the opening or the work throws. */
	async with<T>(shop: ServiceOptions, work: (stores: Stores) => Promise<T>): Promise<T> {
		const one = this.of(shop);
		one.busy += 1;
		try {
			return await work(await one.stores);
		} finally {
			one.busy -= 1;
			this.makeRoom();
		}
	}

	private of(shop: ServiceOptions): Opened {
		const url = shop.databaseUrl;
		const known = this.opened.get(url);
		const one = known ?? { stores: this.open(shop, this.turns), busy: 0 };
		this.opened.delete(url);
		this.opened.set(url, one);
		// One that cannot be opened now is tried anew by whoever asks next.
		if (!known)
			one.stores.catch(() => {
				if (this.opened.get(url) === one) this.opened.delete(url);
			});
		return one;
	}

	private makeRoom(): void {
		for (const [url, { stores, busy }] of this.opened) {
			if (this.opened.size <= this.most) return;
			if (busy > 0) continue;
			this.opened.delete(url);
			void stores.then(({ db }) => db.$client.close());
		}
	}
}
