import type { Entry } from '../../case/entries/entry';
import type { ChainCheck } from '../../case/thread/hashChain';

/** A thread as it was read, with whether it is as it was written. */
export interface KeptThread {
	readonly entries: readonly Entry[];
	readonly chain: ChainCheck;
}

/** Threads kept in memory together hold this much payload, in signs. */
const MOST_SIGNS = 64 * 1024 * 1024;

/** Threads in use, the longest unused going first when there are too many. */
export class ThreadCache {
	private readonly kept = new Map<string, { thread: KeptThread; signs: number }>();
	private signs = 0;

	get(caseId: string): KeptThread | undefined {
		const known = this.kept.get(caseId);
		if (!known) return undefined;
		this.kept.delete(caseId);
		this.kept.set(caseId, known);
		return known.thread;
	}

	/** @param addedSigns how much payload it has more than what was kept of it before */
	set(caseId: string, thread: KeptThread, addedSigns: number): void {
		const signs = (this.kept.get(caseId)?.signs ?? 0) + addedSigns;
		this.drop(caseId);
		this.kept.set(caseId, { thread, signs });
		this.signs += signs;
		for (const [oldest] of this.kept) {
			if (this.signs <= MOST_SIGNS || oldest === caseId) break;
			this.drop(oldest);
		}
	}

	drop(caseId: string): void {
		this.signs -= this.kept.get(caseId)?.signs ?? 0;
		this.kept.delete(caseId);
	}
}
