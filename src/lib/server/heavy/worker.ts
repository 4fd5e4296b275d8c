import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../db/open';
import { objectsOf } from '../../objects/s3Store';
import type { ServiceOptions } from '../serviceOptions';
import { storesOn } from '../stores';
import { tidyWhenResting } from '../tidyMemory';
import type { Answer, Order } from './pool';
import { doTask } from './inline';

/** One thread of heavy work: takes an order, does it, answers. It reads the database by itself. What it is started with: */
const { options, behind } = workerData as { options: ServiceOptions; behind: number };
try {
	// Of this thread alone: whoever serves people comes first on a machine with few cores.
	setPriority(0, behind);
} catch {
	// Not everywhere may a thread step back; then it does not.
}

tidyWhenResting();
const ready = openDatabase(options.databaseUrl, options.databaseToken).then((db) =>
	storesOn(db, options.origin, objectsOf(options))
);

parentPort?.on('message', ({ id, task, input, patient }: Order) => {
	void (async (): Promise<Answer> => {
		try {
			const stores = await ready;
			const work = () => doTask(stores, task, input as never);
			return { id, value: await (patient ? work() : stores.turns.first(work)) };
		} catch (error) {
			return { id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) };
		}
	})().then((answer) => parentPort?.postMessage(answer));
});
