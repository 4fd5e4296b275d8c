import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import type { Stores } from '../stores';
import { tidyWhenResting } from '../tidyMemory';
import { doTask } from './inline';
import { StoresOfShops } from './openStores';
import type { Answer, Order, WorkerStart } from './pool';

/** One thread of heavy work: takes an order, does it, answers. It reads the shops' databases by itself. What it is started with: */
const { behind, first } = workerData as WorkerStart;
try {
	// Of this thread alone: whoever serves people comes first on a machine with few cores.
	setPriority(0, behind);
} catch {
	// Not everywhere may a thread step back; then it does not.
}

tidyWhenResting();
const shops = new StoresOfShops();
// A shop that cannot be opened now is told to whoever asks for its work.
if (first) shops.with(first, () => Promise.resolve()).catch(() => undefined);

parentPort?.on('message', ({ id, shop, task, input, patient }: Order) => {
	void (async (): Promise<Answer> => {
		try {
			const work = (stores: Stores) => doTask(stores, task, input as never);
			const value = await (patient ? shops.with(shop, work) : shops.first(shop, work));
			return { id, value };
		} catch (error) {
			return { id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) };
		}
	})().then((answer) => parentPort?.postMessage(answer));
});
