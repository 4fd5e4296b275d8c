import type { ServiceOptions } from '../serviceOptions';
import { startServices, type Services } from '../services';
import { Machine } from '../machine';
import type { ShopOfChain } from './shopsFile';

/** A shop that could not be opened is tried anew by whoever asks after this. */
const TRY_AGAIN_MS = 15_000;

/** Why nothing of a shop can be shown now. */
export class ShopIsShut extends Error {
	constructor(cause: unknown) {
		super('This shop cannot be opened now; whoever looks after the server finds why in its log.', { cause });
	}
}

/** Who is told how it goes with the opening of each shop, whoever asked for it. */
export interface Doorkeeper {
	opened: (shop: Services) => Promise<void> | void;
	shut: (name: string, error: unknown) => void;
}

/** One shop of this server: opened once, by whoever asks first. */
class Shop {
	private opening: Promise<Services> | null = null;
	private failedAt: number | null = null;
	/** Once it is open. */
	services: Services | null = null;

	constructor(
		readonly options: ServiceOptions,
		private readonly start: (options: ServiceOptions) => Promise<Services>,
		private readonly told: Doorkeeper,
		private readonly now: () => number
	) {}

	/** @throws {ShopIsShut} */
	open(): Promise<Services> {
		if (this.failedAt !== null && this.now() - this.failedAt > TRY_AGAIN_MS) this.opening = null;
		return (this.opening ??= this.begin());
	}

	private async begin(): Promise<Services> {
		this.failedAt = null;
		try {
			this.services = await this.start(this.options);
			await this.told.opened(this.services);
			return this.services;
		} catch (error) {
			this.failedAt = this.now();
			const { name, origin } = this.options;
			this.told.shut(name ?? origin, error);
			throw new ShopIsShut(error);
		}
	}
}

/**
 * The shops of this server: one that answers by whatever name this machine is asked, or a chain in which each has its own address,
 * database, people and files. They share threads and nothing that is stored or remembered.
 */
export class Shops {
	private readonly byHost: ReadonlyMap<string, Shop> | null;
	private readonly shops: readonly Shop[];

	private constructor(
		listed: readonly ServiceOptions[],
		isChain: boolean,
		private readonly machine: Machine,
		told: Doorkeeper,
		start: typeof startServices,
		now: () => number
	) {
		this.shops = listed.map((options) => new Shop(options, (o) => start(o, machine), told, now));
		this.byHost = isChain
			? new Map(this.shops.map((shop) => [new URL(shop.options.origin).host, shop]))
			: null;
	}

	static one(options: ServiceOptions, told: Doorkeeper): Shops {
		const machine = new Machine(options.workerFile, options);
		return new Shops([options], false, machine, told, startServices, Date.now);
	}

	/** @param listed at least one, each with an address and a database of its own */
	static chain(
		listed: readonly ShopOfChain[],
		told: Doorkeeper,
		{ start = startServices, now = Date.now, machine = new Machine(listed[0]?.options.workerFile) } = {}
	): Shops {
		return new Shops(
			listed.map(({ options }) => options),
			true,
			machine,
			told,
			start,
			now
		);
	}

	/**
	 * @param url that was asked for
	 * @returns the shop there, open; null = none is at this address
	 * @throws {ShopIsShut}
	 */
	at(url: URL): Promise<Services> | null {
		if (this.byHost === null) return this.shops[0]?.open() ?? null;
		const shop = this.byHost.get(url.host);
		// Forms are only taken at the shop's own address: one that is asked by another protocol is not there.
		return shop && new URL(shop.options.origin).protocol === url.protocol ? shop.open() : null;
	}

	/** Whether each shop has an address of its own, and no other leads to it. */
	get isChain(): boolean {
		return this.byHost !== null;
	}

	get count(): number {
		return this.shops.length;
	}

	/** Those that are open. */
	get open(): Services[] {
		return this.shops.flatMap(({ services }) => services ?? []);
	}

	/**
	 * Opens all of them, one after the other: whoever asks for one meanwhile does not wait for those before it. One that cannot be
	 * opened stops none of the others; rejects with why where it is the only one.
	 */
	async openAll(): Promise<void> {
		for (const shop of this.shops) {
			try {
				await shop.open();
			} catch (error) {
				if (!this.isChain) throw error instanceof ShopIsShut ? error.cause : error;
			}
			// Whoever has come meanwhile is served.
			await new Promise((resolve) => setImmediate(resolve));
		}
	}

	/** Ends streams and recordings, finishes what is being written and closes every database. Rejects when one could not be ended well. */
	async stop(): Promise<void> {
		const ended = await Promise.allSettled(
			this.open.map(async (shop) => {
				shop.streams.endAll();
				await shop.close();
			})
		);
		await this.machine.close();
		const errors = ended.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
		if (errors.length > 0) throw new AggregateError(errors, 'Not every shop could be ended well.');
	}
}
