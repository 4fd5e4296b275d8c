import type { Wheel, World } from '../world';
import type { Watch } from './module';
import type { Lamp, Sample } from './monitor';

/** What the module believes about its rings and tyres, from its configuration. */
export interface Believed {
	teeth: number;
	circumferenceM: number;
}

/** What the corners together say at this moment: every corner is judged against it. */
export interface Together {
	/** Mean of the middle two, so that one liar cannot move it. */
	referenceKmh: number;
	/** Slowest of all corners but the slowest. */
	othersKmh: number;
}

/** Speed estimate follows the pulses with this time constant. */
const ESTIMATE_S = 0.03;
/** No pulse for so long is standstill. */
const STANDSTILL_S = 0.5;
const ROLLING_KMH = 5;
const PLAUSIBLE_FROM_KMH = 20;
const DROPOUT_SHARE = 0.5;
const AGREE_SHARE = 0.85;
/** With no pulse for this long the signal is gone rather than erratic. */
const GONE_S = 2;
const NO_SIGNAL_FROM_KMH = 10;
/** A period this many times the one before is the gap of a tooth that is not there, or of a crack. */
const LONG_GAP_FROM = 1.45;
const LONG_GAP_TO = 2.6;
/** Long gaps a turn apart that make a pattern. */
const GAPS_FOR_PATTERN = 4;
/** Turns in a row without a long gap that make a good ring. */
const GOOD_TURNS = 3;
/** The pattern itself has been waited for: one sample decides. */
const AT_ONCE_S = 0.001;

/** Codes of one corner: two bytes of its circuit and of its ring. */
export interface CornerCodes {
	circuit: string;
	ring: string;
}

/**
 * One corner as its module reads it: electrical judgement, pulses to speed with the teeth and circumference the module was
 * told, and the corner's own monitors.
 */
export class WheelReader {
	estimateKmh = 0;
	/** Held at "not available" after a hard circuit fault, until cleared or a key cycle without it. */
	frozen = false;
	private rawKmh = 0;
	private lastPulseS = -Infinity;
	private lastPeriodS = 0;
	private pulsesSinceGap = -1;
	private pulsesCounted = 0;
	/** Long gaps found a turn apart, good turns counted, since the monitor last looked. */
	private patternGaps = 0;
	private goodTurns = 0;

	constructor(
		readonly wheel: Wheel,
		readonly codes: CornerCodes
	) {}

	get fault() {
		return this.wheel.circuit?.fault ?? null;
	}

	/** What live data show. */
	get shownKmh(): number | null {
		return this.fault !== null || this.frozen ? null : this.estimateKmh;
	}

	read(world: World, believed: Believed, dtS: number): void {
		const { passing } = this.wheel;
		if (passing.pulses > 0) {
			const now = world.timeS - passing.lastAgoS;
			const sinceS = Math.max(1e-6, now - this.lastPulseS);
			this.rawKmh = ((passing.pulses * believed.circumferenceM) / (believed.teeth * sinceS)) * 3.6;
			this.followPattern(passing.pulses, sinceS, believed.teeth);
			this.lastPulseS = now;
		} else {
			const sinceS = world.timeS - this.lastPulseS;
			const most = (believed.circumferenceM / (believed.teeth * sinceS)) * 3.6;
			this.rawKmh = sinceS > STANDSTILL_S ? 0 : Math.min(this.rawKmh, most);
		}
		const share = dtS >= ESTIMATE_S ? 1 : 1 - Math.exp(-dtS / ESTIMATE_S);
		this.estimateKmh += (this.rawKmh - this.estimateKmh) * share;
		if (this.estimateKmh < 0.01) this.estimateKmh = 0;
	}

	/** Looks for one long period each turn; only at a walking pace, where each pulse is timed on its own. */
	private followPattern(pulses: number, periodS: number, teeth: number): void {
		if (pulses > 1) {
			this.pulsesSinceGap = -1;
			this.lastPeriodS = 0;
			this.pulsesCounted = 0;
			return;
		}
		const ratio = this.lastPeriodS > 0 ? periodS / this.lastPeriodS : 1;
		this.pulsesCounted += 1;
		if (this.pulsesSinceGap >= 0) this.pulsesSinceGap += 1;
		if (ratio >= LONG_GAP_FROM && ratio <= LONG_GAP_TO) {
			if (this.pulsesSinceGap >= teeth - 4 && this.pulsesSinceGap <= teeth + 1) this.patternGaps += 1;
			this.pulsesSinceGap = 0;
			this.pulsesCounted = 0;
			// The next period is judged against the one before the gap.
			return;
		}
		if (this.pulsesCounted >= teeth + 2) {
			this.goodTurns += 1;
			this.pulsesCounted = 0;
		}
		this.lastPeriodS = periodS;
	}

	/** The key is turned on: a value stays frozen only while its fault is still there. */
	newCycle(): void {
		this.frozen = this.fault !== null;
	}

	restart(): void {
		this.estimateKmh = 0;
		this.rawKmh = 0;
		this.lastPulseS = -Infinity;
		this.pulsesSinceGap = -1;
	}

	watches(together: () => Together, lamps: Lamp[]): Watch[] {
		// A wheel can lock within hundredths of a second: these run in every cycle.
		return this.cornerWatches(together, lamps).map((watch) => ({ ...watch, fast: true }));
	}

	private cornerWatches(together: () => Together, lamps: Lamp[]): Watch[] {
		const { circuit, ring } = this.codes;
		const hard = (kind: NonNullable<typeof this.fault>, suffix: string): Watch => ({
			rule: { dtc: circuit + suffix, failS: 0.2, passS: 1, lamps },
			sample: (): Sample => {
				if (this.fault === kind) {
					this.frozen = true;
					return 'fail';
				}
				// Taken as good only once that wheel has turned.
				return this.fault === null && this.estimateKmh >= ROLLING_KMH ? 'pass' : 'none';
			}
		});
		return [
			hard('ground', '11'),
			hard('supply', '12'),
			hard('open', '13'),
			{
				/** One wheel collapses while the others roll on. Good after ten seconds of agreement at speed. */
				rule: { dtc: `${circuit}2F`, failS: 0.06, passS: 10, lamps },
				sample: (world): Sample => {
					const { referenceKmh } = together();
					if (this.fault !== null || referenceKmh < PLAUSIBLE_FROM_KMH) return 'none';
					const share = this.estimateKmh / referenceKmh;
					if (share < DROPOUT_SHARE) return world.timeS - this.lastPulseS < GONE_S ? 'fail' : 'none';
					if (share > 1 / DROPOUT_SHARE) return 'fail';
					return share >= AGREE_SHARE ? 'pass' : 'none';
				}
			},
			{
				/** Nothing at all while every other wheel rolls. */
				rule: { dtc: `${circuit}31`, failS: 1.5, passS: 0.5, lamps },
				sample: (world): Sample => {
					if (this.estimateKmh >= ROLLING_KMH) return 'pass';
					if (this.fault !== null || together().othersKmh < NO_SIGNAL_FROM_KMH) return 'none';
					return world.timeS - this.lastPulseS >= STANDSTILL_S ? 'fail' : 'none';
				}
			},
			{
				/** A long gap each turn: the ring. */
				rule: { dtc: `${ring}38`, failS: AT_ONCE_S, passS: AT_ONCE_S, lamps },
				sample: (): Sample => {
					if (this.patternGaps >= GAPS_FOR_PATTERN) {
						this.patternGaps = 0;
						this.goodTurns = 0;
						return 'fail';
					}
					if (this.goodTurns >= GOOD_TURNS) {
						this.goodTurns = 0;
						this.patternGaps = 0;
						return 'pass';
					}
					return 'none';
				}
			}
		];
	}

	/** The codes were cleared. */
	cleared(): void {
		this.frozen = false;
		this.patternGaps = 0;
		this.goodTurns = 0;
	}
}

/** What the corners together say; one whose circuit is known to be at fault says nothing. */
export function together(readers: readonly WheelReader[]): Together {
	const trusted = readers.filter(({ fault, frozen }) => fault === null && !frozen);
	const sorted = (trusted.length > 0 ? trusted : readers)
		.map((reader) => reader.estimateKmh)
		.sort((a, b) => a - b);
	// Two that stand while two roll are two that say nothing: those that roll are believed.
	const rolling = sorted.filter((kmh) => kmh >= ROLLING_KMH);
	if (sorted.length - rolling.length > 1 && rolling.length > 1) {
		const referenceKmh = rolling.reduce((sum, kmh) => sum + kmh, 0) / rolling.length;
		return { referenceKmh, othersKmh: referenceKmh };
	}
	const middle = sorted.length >> 1;
	const referenceKmh =
		sorted.length % 2 ? (sorted[middle] ?? 0) : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
	return { referenceKmh, othersKmh: sorted[1] ?? 0 };
}
