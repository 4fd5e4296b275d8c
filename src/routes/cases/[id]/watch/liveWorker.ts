import { wrap, type Remote } from 'comlink';
import type { LiveWorker } from '../../../../workers/live.worker';

/** A worker that holds recordings, and how to end it. */
export function startLiveWorker(): { remote: Remote<LiveWorker>; end: () => void } {
	const worker = new Worker(new URL('../../../../workers/live.worker.ts', import.meta.url), {
		type: 'module'
	});
	return { remote: wrap<LiveWorker>(worker), end: () => worker.terminate() };
}
