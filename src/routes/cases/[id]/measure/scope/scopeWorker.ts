import { wrap, type Remote } from 'comlink';
import type { ScopeWorker } from '../../../../../workers/scope.worker';

/** A worker that holds captures, and how to end it. */
export function startScopeWorker(): { remote: Remote<ScopeWorker>; end: () => void } {
	const worker = new Worker(new URL('../../../../../workers/scope.worker.ts', import.meta.url), {
		type: 'module'
	});
	return { remote: wrap<ScopeWorker>(worker), end: () => worker.terminate() };
}
