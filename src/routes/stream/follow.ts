import { stampOf } from '$lib/server/db/outlook';
import type { Services } from '$lib/server/services';

type Send = (name: 'head' | 'next' | 'job' | 'rows', value: unknown) => void;

/** Tells how a case goes on, where it stands now first. @returns how to stop */
export async function followCase(
	{ threads, vehicleJobs, outlooks }: Pick<Services, 'threads' | 'vehicleJobs' | 'outlooks'>,
	caseId: string,
	send: Send
): Promise<() => void> {
	const stops = [
		threads.listen(caseId, (seq) => send('head', seq)),
		outlooks.listen(caseId, (stamp) => send('next', stamp)),
		vehicleJobs.watch(caseId, (status) => send('job', status))
	];
	send('head', await threads.headSeq(caseId));
	// It may have been worked out after the page was made and before anybody listened.
	const outlook = await outlooks.read(caseId);
	if (outlook) send('next', stampOf(outlook));
	// Also when there is none: whoever reconnects may be waiting for work that died with another server.
	send('job', vehicleJobs.status(caseId));
	return () => stops.forEach((stop) => stop());
}

const LOOK_AGAIN_MS = 300;
/** Whoever only looks needs no more than this of what was. */
const LOOKED_AT_S = 120;

/**
 * Tells the readings of the running recording: what was, then as they come. Waits for a recording where none runs yet, and for
 * the next when one has ended. @returns how to stop
 */
export function followLive(
	{ vehicleJobs }: Pick<Services, 'vehicleJobs'>,
	caseId: string,
	whole: boolean,
	send: Send
): () => void {
	let following: string | null = null;
	let unwatch: (() => void) | null = null;
	const look = () => {
		const status = vehicleJobs.status(caseId);
		const running = status?.kind === 'record' && status.state === 'running' ? status.id : null;
		if (running === following && (running === null || unwatch)) return;
		unwatch?.();
		unwatch = null;
		following = running;
		if (!running) return;
		const afterS = whole ? -1 : (vehicleJobs.recordedS(caseId) ?? 0) - LOOKED_AT_S;
		unwatch = vehicleJobs.watchLive(caseId, (batch) => send('rows', batch), afterS);
	};
	const looking = setInterval(look, LOOK_AGAIN_MS);
	look();
	return () => {
		clearInterval(looking);
		unwatch?.();
	};
}
