import type { Later } from './later';

/** What a page shows, and went on showing while something newer of the same was worked out. */
export class Latest<T> {
	private shown = $state.raw<{ from: Later<T>; value: T } | null>(null);
	private failed = $state.raw<Later<T> | null>(null);

	/** @param of what the page was loaded with, read anew each time */
	constructor(private readonly of: () => Later<T>) {
		$effect(() => {
			const later = of();
			if ('now' in later) {
				this.shown = { from: later, value: later.now };
				return;
			}
			let left = false;
			later.coming.then(
				(value) => {
					if (!left) this.shown = { from: later, value };
				},
				() => {
					if (!left) this.failed = later;
				}
			);
			return () => {
				left = true;
			};
		});
	}

	/** Undefined while nothing of it was ever shown. */
	get value(): T | undefined {
		const later = this.of();
		if ('now' in later) return later.now;
		return this.shown?.from.of === later.of ? this.shown.value : undefined;
	}

	/** What is shown is from before: something newer of the same is being worked out. */
	get older(): boolean {
		const later = this.of();
		return 'coming' in later && this.shown?.from !== later && !this.trouble;
	}

	/** It could not be worked out: the server has too much to do, or cannot be reached. */
	get trouble(): boolean {
		return this.failed !== null && this.failed === this.of();
	}
}
