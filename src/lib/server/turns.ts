/** Who goes first on a thread of the server: what somebody waits for, before what nobody does. */
export class Turns {
	private waitedFor = 0;
	private rest: (() => void)[] = [];

	/** Does what somebody waits for. */
	async first<T>(work: () => Promise<T>): Promise<T> {
		this.waitedFor++;
		try {
			return await work();
		} finally {
			if (--this.waitedFor === 0) for (const go of this.rest.splice(0)) go();
		}
	}

	/** Runs long work that nobody waits for, part by part: between two of them everybody else is served. */
	async last<T>(parts: Generator<void, T>): Promise<T> {
		for (;;) {
			const { done, value } = parts.next();
			if (done) return value;
			await new Promise((resolve) => setImmediate(resolve));
			while (this.waitedFor > 0) await new Promise<void>((resolve) => this.rest.push(resolve));
		}
	}
}
