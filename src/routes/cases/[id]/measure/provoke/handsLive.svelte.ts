import { byHand } from '$lib/case/watch/triedThings';
import { GONE_SHARE, TURNS_KMH } from '$lib/core/live/provoked';
import { isNotAvailable } from '$lib/core/live/recording';
import type { TouchedPlace } from '$lib/case/entries/live-recording/payload';
import type { LiveFeed } from '../../watch/liveFeed.svelte';

const GONE_FOR_S = 1.2;
/** What was done is counted anew so often, not with every row. */
const COUNT_EVERY_S = 0.5;

/** What hands do while one wheel is watched, counted as it goes: the same count as is kept afterwards. */
export class HandsLive {
	now = $state<number | null>(null);
	/** The value went and has not come back. */
	gone = $state(false);
	/** Its module gives none any more. */
	none = $state(false);
	tried = $state.raw<Record<string, { seconds: number; changes: number }>>({});
	private timeS: number[] = [];
	private kmh: number[] = [];
	private usual = 0;
	private aliveS = 0;
	private countedS = 0;
	/** The recording that is counted. */
	private of: string | null = null;

	constructor(
		private readonly feed: LiveFeed,
		signal: () => string | null,
		private readonly places: () => TouchedPlace[]
	) {
		feed.onrow((row, channels) => {
			if (feed.id !== this.of) this.begin();
			const at = channels.indexOf(signal() ?? '');
			if (at >= 0) this.take(row[0] ?? 0, row[at + 1] ?? null);
		});
	}

	private begin(): void {
		this.of = this.feed.id;
		this.timeS = [];
		this.kmh = [];
		this.tried = {};
		this.now = null;
		this.gone = this.none = false;
		this.usual = this.aliveS = this.countedS = 0;
	}

	private take(atS: number, value: number | null): void {
		if (value === null) return;
		this.timeS.push(atS);
		this.kmh.push(value);
		this.none = isNotAvailable(value);
		const available = this.none ? 0 : value;
		this.now = this.none ? null : value;
		if (available > TURNS_KMH && available > GONE_SHARE * this.usual) {
			this.usual = this.usual === 0 ? available : 0.9 * this.usual + 0.1 * available;
			this.aliveS = atS;
		}
		this.gone = this.usual > 0 && atS - this.aliveS > GONE_FOR_S;
		if (atS - this.countedS < COUNT_EVERY_S) return;
		this.countedS = atS;
		const samples = { timeS: Float64Array.from(this.timeS), kmh: Float64Array.from(this.kmh) };
		this.tried = Object.fromEntries(
			byHand(samples, this.feed.marks, { places: this.places() }).map(({ label, seconds, changes }) => [
				label,
				{ seconds, changes }
			])
		);
	}
}
