import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { openRunning } from '../running';
import type { ServiceOptions } from '../services';
import { tidyWhenResting } from '../tidyMemory';
import type { Answer, Order } from './pool';
import { TASKS } from './tasks';

/** One thread of heavy work: takes an order, does it, answers. It reads the database by itself. What it is started with: */
const { options, behind } = workerData as { options: ServiceOptions; behind: number };
try {
	// Of this thread alone: whoever serves people comes first on a machine with few cores.
	setPriority(0, behind);
} catch {
	// Not everywhere may a thread step back; then it does not.
}

tidyWhenResting();
const ready = openRunning(options);

parentPort?.on('message', ({ id, task, input }: Order) => {
	void (async (): Promise<Answer> => {
		try {
			await ready;
			return { id, value: await (TASKS[task] as (input: unknown) => unknown)(input) };
		} catch (error) {
			return { id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) };
		}
	})().then((answer) => parentPort?.postMessage(answer));
});
