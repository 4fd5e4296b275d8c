/** Failed tries after which the next has to wait, and for how long they count. */
const WINDOW_MS = 60_000;
const MOST_FAILED = 8;
/** So many addresses and accounts are remembered; who fills this up is forgotten first. */
const MOST_REMEMBERED = 20_000;

/**
 * Tries to sign in that failed, by address and by account: guessing is slow from one place, and slow against one person from
 * many. A try that succeeds is not counted, and clears what was counted against its account.
 */
export class FailedTries {
	private readonly failed = new Map<string, number[]>();

	constructor(private readonly nowMs: () => number = Date.now) {}

	/** Seconds to wait before the next try; 0 = now. */
	waitS(address: string, account: string): number {
		return Math.max(...keysOf(address, account).map((key) => this.waitOf(key)));
	}

	failedOnce(address: string, account: string): void {
		for (const key of keysOf(address, account)) {
			const times = [...this.recent(key), this.nowMs()].slice(-MOST_FAILED);
			this.failed.delete(key);
			this.failed.set(key, times);
		}
		while (this.failed.size > MOST_REMEMBERED) this.failed.delete(this.failed.keys().next().value ?? '');
	}

	succeeded(account: string): void {
		this.failed.delete(`account ${account}`);
	}

	private recent(key: string): number[] {
		return (this.failed.get(key) ?? []).filter((at) => this.nowMs() - at < WINDOW_MS);
	}

	private waitOf(key: string): number {
		const times = this.recent(key);
		const [first = 0] = times;
		return times.length < MOST_FAILED
			? 0
			: Math.max(1, Math.ceil((WINDOW_MS - (this.nowMs() - first)) / 1000));
	}
}

const keysOf = (address: string, account: string) => [`address ${address}`, `account ${account}`];
