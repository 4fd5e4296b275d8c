import { isNotAvailable, type Recording } from '../live/recording';
import { bandOf, turnOf, type DrivenBand, type Turn } from './drivenBands';

/** What a drive has come to by its own readings of speed. */
export interface Driven {
	km: number;
	topKmh: number;
	/** Times it came to a stop after rolling. */
	stops: number;
	seconds: number;
	/** Its distance by speed and turn. */
	bands: DrivenBand[];
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
	private km = 0;
	private topKmh = 0;
	private stops = 0;
	private seconds = 0;
	private readonly bands = new Map<number, Map<Turn, number>>();

	/**
	 * @param shownKmh null where it was not read; below zero backwards, which is a distance too
	 * @param steeringDeg positive to the left; null where it was not read
	 */
	sample(timeS: number, shownKmh: number | null, steeringDeg: number | null = null): void {
		if (shownKmh === null || !Number.isFinite(shownKmh)) return;
		const kmh = Math.abs(shownKmh);
		// A module's word for "no speed" is no speed.
		if (isNotAvailable(kmh)) return;
		const stepS = this.lastS === null ? 0 : timeS - this.lastS;
		if (stepS > 0 && stepS <= GAP_S) {
			// Between two readings the speed is taken to change evenly.
			const meanKmh = (this.lastKmh + kmh) / 2;
			const km = (meanKmh * stepS) / 3600;
			this.km += km;
			this.seconds += stepS;
			if (km > 0) this.count(meanKmh, turnOf(steeringDeg), km);
		}
		const stopped = kmh <= STOPPED_KMH && this.rolled;
		this.topKmh = Math.max(this.topKmh, kmh);
		this.stops += stopped ? 1 : 0;
		this.rolled = stopped ? false : this.rolled || kmh >= ROLLED_KMH;
		this.lastS = timeS;
		this.lastKmh = kmh;
	}

	get driven(): Driven {
		const { km, topKmh, stops, seconds } = this;
		const bands = [...this.bands].flatMap(([fromKmh, turns]) =>
			[...turns].map(([turn, part]): DrivenBand => ({ fromKmh, turn, km: part }))
		);
		return { km, topKmh, stops, seconds, bands };
	}

	private count(kmh: number, turn: Turn, km: number): void {
		const band = bandOf(kmh);
		const turns = this.bands.get(band) ?? new Map<Turn, number>();
		turns.set(turn, (turns.get(turn) ?? 0) + km);
		this.bands.set(band, turns);
	}
}

/** What a recording's own readings of vehicle speed and steering come to; null where it has no vehicle speed. */
export function drivenIn({ timeS, channels }: Pick<Recording, 'timeS' | 'channels'>): Driven | null {
	const kmh = channels.get('vehicle');
	const steering = channels.get('steering');
	if (!kmh) return null;
	const odometer = new Odometer();
	for (const [i, t] of timeS.entries()) odometer.sample(t, kmh[i] ?? null, steering?.[i] ?? null);
	return odometer.driven;
}
