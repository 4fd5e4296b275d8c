import { performance } from 'node:perf_hooks';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

const LOOK_MS = 5_000;
/** Share of the time that a thread that rests is at work at most, and that one has been at least whose memory is worth a look. */
const RESTS_BELOW = 0.05;
const BUSY_FROM = 0.2;

/**
 * Whether a thread that was busy rests now: told once for each time it was busy.
 *
 * @returns asked with its share of time at work since the last look
 */
export function restsAfterWork(): (utilization: number) => boolean {
	let wasBusy = false;
	return (utilization) => {
		if (utilization >= BUSY_FROM) wasBusy = true;
		if (!wasBusy || utilization >= RESTS_BELOW) return false;
		wasBusy = false;
		return true;
	};
}

/**
 * Gives memory back when a thread rests after work: left to itself, V8 keeps what it once needed for as long as nothing new
 * is asked for, which on a small machine is hundreds of megabytes over night. To be called once in each thread.
 */
export function tidyWhenResting(): void {
	setFlagsFromString('--expose-gc');
	const collect = runInNewContext('gc') as () => void;
	const rests = restsAfterWork();
	let before = performance.eventLoopUtilization();
	setInterval(() => {
		const now = performance.eventLoopUtilization();
		if (rests(performance.eventLoopUtilization(now, before).utilization)) collect();
		before = now;
	}, LOOK_MS).unref();
}
