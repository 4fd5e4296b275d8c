/** What a drive has come to by its own readings of speed. */
export interface Driven {
	km: number;
	topKmh: number;
	/** Times it came to a stop after rolling. */
	stops: number;
	seconds: number;
}

const STOPPED_KMH = 0.5;
const ROLLED_KMH = 8;
/** Longer than this between two readings nobody knows what was driven. */
const GAP_S = 2;

/** Sums a drive up, reading by reading. A pause in the readings counts for no distance. */
export class Odometer {
	private lastS: number | null = null;
	private lastKmh = 0;
	private rolled = false;
	driven: Driven = { km: 0, topKmh: 0, stops: 0, seconds: 0 };

	/** @param kmh null where it was not read */
	sample(timeS: number, kmh: number | null): void {
		if (kmh === null || !Number.isFinite(kmh)) return;
		const stepS = this.lastS === null ? 0 : timeS - this.lastS;
		const { km, topKmh, stops, seconds } = this.driven;
		const counts = stepS > 0 && stepS <= GAP_S;
		const stopped = kmh <= STOPPED_KMH && this.rolled;
		this.driven = {
			// Between two readings the speed is taken to change evenly.
			km: km + (counts ? (((this.lastKmh + kmh) / 2) * stepS) / 3600 : 0),
			topKmh: Math.max(topKmh, kmh),
			stops: stops + (stopped ? 1 : 0),
			seconds: seconds + (counts ? stepS : 0)
		};
		this.rolled = stopped ? false : this.rolled || kmh >= ROLLED_KMH;
		this.lastS = timeS;
		this.lastKmh = kmh;
	}
}
