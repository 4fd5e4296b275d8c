import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION_MS = 20;

/** How long a thread stands still while others wait for it. */
export interface Stalls {
	/** 99 of 100 looks at the clock came late by no more than this, ms, since it was begun. */
	mostMs(): number;
}

/** Looks at the clock from now on. */
export function watchStalls(): Stalls {
	const delays = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
	delays.enable();
	// What is measured is the time from one look to the next, which is never shorter than was asked for.
	return { mostMs: () => Math.max(0, delays.percentile(99) / 1e6 - RESOLUTION_MS) };
}
