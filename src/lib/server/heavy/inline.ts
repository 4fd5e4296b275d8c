import type { Stores } from '../stores';
import { TASKS, type HeavyWork, type Input, type Outcome, type TaskName } from './tasks';

/** Does a task on this thread. */
export const doTask = async <N extends TaskName>(
	stores: Stores,
	task: N,
	input: Input<N>
): Promise<Outcome<N>> =>
	(await (TASKS[task] as (stores: Stores, input: unknown) => unknown)(stores, input)) as Outcome<N>;

/** All work on this thread: for tests and for development, where nothing is bundled yet. */
export const inlineWork = (stores: Stores): HeavyWork => ({
	ask: (task, input) => doTask(stores, task, input),
	close: () => Promise.resolve()
});
