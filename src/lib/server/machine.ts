import type { Registry } from 'prom-client';
import { inlineWork } from './heavy/inline';
import { WorkerPool } from './heavy/pool';
import type { HeavyWork } from './heavy/tasks';
import type { ServiceOptions } from './serviceOptions';
import type { Stores } from './stores';
import { Turns } from './turns';
import { processFigures } from './watch/metrics';
import { watchStalls, type Stalls } from './watch/stalls';

/** How far workers step back behind whoever is served (nice): a file is waited for, a thought may take its time. */
const BEHIND = { heavy: 3, thinking: 9 };

/** The work of a shop that is done on other threads. */
export interface ShopWork {
	/** Files and papers. */
	heavy: HeavyWork;
	/** Reasoning, on a thread of its own: nobody waits for a paper to learn the next step. */
	thinking: HeavyWork;
	/** Does one long piece when those before it are done, on a thread that goes with it: whoever waits for a paper does not wait for that. */
	besides: HeavyWork['ask'];
}

/** What all shops of one process share: its threads and its clock. Nothing of a shop is kept here. */
export class Machine {
	readonly turns = new Turns();
	readonly stalls: Stalls = watchStalls();
	readonly figures: Registry = processFigures();
	private long: Promise<unknown> = Promise.resolve();
	private readonly pools: { heavy: WorkerPool; thinking: WorkerPool } | null;

	/**
	 * @param workerFile bundle of the worker threads; absent = heavy work is done on this thread
	 * @param first a shop that they open before they are asked for
	 */
	constructor(
		private readonly workerFile?: string,
		first?: ServiceOptions
	) {
		this.pools = workerFile
			? {
					heavy: new WorkerPool(workerFile, { first, behind: BEHIND.heavy }).warm(),
					thinking: new WorkerPool(workerFile, { first, behind: BEHIND.thinking }, 1).warm()
				}
			: null;
	}

	workOf(stores: Stores, shop: ServiceOptions): ShopWork {
		const { pools, workerFile } = this;
		if (!pools || !workerFile) {
			const inline = inlineWork(stores);
			return { heavy: inline, thinking: inline, besides: inline.ask };
		}
		return {
			heavy: pools.heavy.of(shop),
			thinking: pools.thinking.of(shop),
			besides: (task, input, how) =>
				this.oneLong(() => {
					const pool = new WorkerPool(workerFile, { behind: BEHIND.thinking }, 1);
					return pool
						.of(shop)
						.ask(task, input, how)
						.finally(() => pool.close());
				})
		};
	}

	/** Long pieces go one after the other: at a start every shop has one, and each would have a thread of its own. */
	private oneLong<T>(work: () => Promise<T>): Promise<T> {
		const done = this.long.then(work);
		this.long = done.catch(() => undefined);
		return done;
	}

	async close(): Promise<void> {
		await Promise.all([this.pools?.heavy.close(), this.pools?.thinking.close()]);
	}
}
