import type { HeavyWork, Outcome, TaskName, Tasks } from './tasks';

/** The same work on this thread: for tests and for development, where nothing is bundled yet. */
export const inlineWork: HeavyWork = {
	async ask<N extends TaskName>(task: N, input: Parameters<Tasks[N]>[0]): Promise<Outcome<N>> {
		// Read when it is first needed: the tasks read the services, which read this.
		const { TASKS } = await import('./tasks');
		return (await (TASKS[task] as (input: unknown) => unknown)(input)) as Outcome<N>;
	},
	close: () => Promise.resolve()
};
