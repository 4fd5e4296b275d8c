import type { LiveFeed } from '../../watch/liveFeed.svelte';

/** A module that shows no value sends the highest it can. */
const HIGHEST_KMH = 250;

/** The live value of one wheel while a signal is held in its place: lowest and highest since it is held. */
export class LiveValue {
	now = $state<number | null>(null);
	low = $state<number | null>(null);
	high = $state<number | null>(null);
	seconds = $state(0);
	private startS: number | null = null;

	constructor(feed: LiveFeed, signal: () => string | null) {
		feed.onrow((row, channels) => {
			const name = signal();
			const at = name === null ? -1 : channels.indexOf(name);
			if (at >= 0) this.take(row[0] ?? 0, row[at + 1] ?? null);
		});
	}

	/** From now on: what was shown before does not count. */
	begin(): void {
		this.low = this.high = null;
		this.startS = null;
		this.seconds = 0;
	}

	private take(timeS: number, value: number | null): void {
		this.startS ??= timeS;
		this.seconds = Math.max(0, timeS - this.startS);
		this.now = value !== null && value < HIGHEST_KMH ? value : null;
		if (this.now === null) return;
		this.low = Math.min(this.low ?? this.now, this.now);
		this.high = Math.max(this.high ?? this.now, this.now);
	}
}
