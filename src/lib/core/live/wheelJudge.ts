import type { LiveEvent } from './findings';
import type { WheelTable } from './wheelTable';

export const AGAIN_KMH = 4;
/** … until it is this near again … */
export const AGAIN_SHARE = 1.12;
export const HIGH_KMH = 8;
/** Nearer to standstill than this a missing start or end of the signal is usual. */
export const STANDSTILL_KMH = 3;
export const BACK_SHARE = 0.75;
/** Below this speed nothing is judged: the slowest wheels of healthy passive sensors read nothing there. */
export const JUDGE_FROM_KMH = 6;
/** A weak signal begins and ends below this; what is lost faster than that is lost for another reason. */
const WEAK_TO_KMH = 45;
/** … that came faster than any wheel can turn up, and did not last. */
const SPIKE_KMH_PER_S = 120;
const SPIKE_LONGEST_S = 5;
/** A jump of a signal is over within this time; a wheel with its mass needs longer. */
const JUMP_S = 0.08;
const MOST_OF_IT = 0.75;
const LITTLE_OF_IT = 0.15;
/** Losing speed faster than this the vehicle is braked. */
const BRAKED_KMH_PER_S = 2.2;
const BRAKED_OVER_S = 0.6;
/** While a weak signal is lost before a stop, the vehicle does not speed up again by more than this. */
const LOSS_RISE_KMH = 6;
/** Slower than this from stop to stop a healthy wheel may stay at zero. */
const CREEP_KMH = 20;
/** Gone for good: not seen again while the vehicle rolled for so long. */
const GONE_FROM_S = 2;
/** A wheel that leaves the road's speed so far and so long really spins, or is locked. */
const SPIN_SHARE = 1.6;
const SPIN_KMH = 15;
const SPIN_FROM_S = 0.8;
const LOCK_FROM_S = 0.5;
/** Slower than this a braked wheel may stop a little before the vehicle. */
const LOCK_FROM_KMH = 20;
/** So long far above the others, coming with a jump or never smooth, it is neither a spike nor a wheel. */
const WILD_FROM_S = 0.7;
const WILD_SHARE = 0.03;

export interface WheelEvents {
	dropouts: LiveEvent[];
	latePickups: LiveEvent[];
	earlyLosses: LiveEvent[];
	spikes: LiveEvent[];
	/** The wheel itself, not its signal. */
	slips: LiveEvent[];
	/** Far above the others for long, and jumping about there: no wheel does that. */
	wild: LiveEvent[];
	/** Gone, and not back by the end of the recording. */
	goneForGood: LiveEvent | null;
}

/** One wheel while its readings away from the others are told apart. */
export class WheelJudge {
	constructor(
		private readonly table: WheelTable,
		private readonly own: Float64Array,
		private readonly should: Float64Array,
		private readonly invalid: Uint8Array,
		private readonly brakeSwitch: Float64Array | null
	) {}

	judgeLow(from: number, to: number, found: WheelEvents): void {
		const last = this.own.length - 1;
		const othersKmh = this.fastestOthers(from, to);
		const event = { from, to, value: this.lowest(from, to), othersKmh };
		const began = this.standsNear(from, -1);
		const ended = this.standsNear(to, 1);
		const speedBefore = this.should[from] ?? NaN;
		const speedAfter = this.should[Math.min(to + 1, last)] ?? NaN;
		const dark = this.invalid[from] === 1;
		const open = to >= last || ended;
		if (began && !open && !dark && speedAfter <= WEAK_TO_KMH) {
			found.latePickups.push({ ...event, value: speedAfter });
		} else if (open && this.isGone(from, to, began, othersKmh)) {
			found.goneForGood ??= event;
		} else if (
			ended &&
			from > 0 &&
			!began &&
			!dark &&
			othersKmh <= Math.min(WEAK_TO_KMH, speedBefore + LOSS_RISE_KMH)
		) {
			if (found.latePickups.length === 0 && this.brakedAt(from) && !this.jumps(from - 1, from)) {
				if (othersKmh > LOCK_FROM_KMH) found.slips.push(event);
				return;
			}
			found.earlyLosses.push({ ...event, value: speedBefore });
		} else if (began && ended && othersKmh <= CREEP_KMH) {
			// A creep from one stop to the next, slower than a weak signal begins: tells nothing by itself.
		} else if (began || this.wasRight(from - 1) || from === 0) {
			const signal =
				othersKmh > 0 &&
				(!this.brakedAt(from) || (this.jumps(from - 1, from) && (open || this.jumps(to, to + 1))));
			if (signal) found.dropouts.push(event);
			else if (this.lasts(from, to) >= LOCK_FROM_S) found.slips.push(event);
		}
	}

	/** Whether the wheel had read and never reads again, although the vehicle rolls on for long enough to show it. */
	private isGone(from: number, to: number, began: boolean, othersKmh: number): boolean {
		if (this.laterReads(to + 1)) return false;
		const rolledS = this.rollingS(from);
		if (rolledS < GONE_FROM_S) return false;
		// Lost at the end of a stop: only what follows can tell that it is more than a weak signal.
		const fastest = Math.max(othersKmh, this.fastestOthers(to + 1, this.own.length - 1));
		if (!began && fastest <= Math.min(WEAK_TO_KMH, (this.should[from] ?? 0) + LOSS_RISE_KMH))
			return to >= this.own.length - 1;
		return fastest > CREEP_KMH;
	}

	/** Seconds from here on in which the others roll. */
	private rollingS(from: number): number {
		let samples = 0;
		for (let i = from; i < this.own.length; i++) if ((this.should[i] ?? NaN) > JUDGE_FROM_KMH) samples += 1;
		return samples * this.table.intervalS;
	}

	private fastestOthers(from: number, to: number): number {
		let most = 0;
		for (let i = from; i <= to; i++) {
			const now = this.should[i] ?? NaN;
			if (now > most) most = now;
		}
		return most;
	}

	judgeHigh(from: number, to: number, found: WheelEvents): void {
		const last = this.own.length - 1;
		let peak = 0;
		for (let i = from; i <= to; i++) peak = Math.max(peak, this.own[i] ?? 0);
		const event = { from, to, value: peak, othersKmh: this.fastestOthers(from, to) };
		const lastsS = this.lasts(from, to);
		const sharp =
			(from === 0 || this.jumps(from - 1, from)) &&
			(to === last || this.jumps(to, to + 1)) &&
			this.risesKmhPerS(from) > SPIKE_KMH_PER_S;
		const expected = this.should[from] ?? NaN;
		if (sharp && lastsS <= SPIKE_LONGEST_S && !(from === 0 && to === last)) found.spikes.push(event);
		else if (
			lastsS >= WILD_FROM_S &&
			(this.roughness(from, to) > WILD_SHARE || this.risesKmhPerS(from) > SPIKE_KMH_PER_S)
		) {
			found.wild.push(event);
		} else if (lastsS >= SPIN_FROM_S && expected > JUDGE_FROM_KMH && !this.brakedAt(from)) {
			if (peak > SPIN_SHARE * expected && peak - expected > SPIN_KMH) found.slips.push(event);
		}
	}

	/** Lowest reading; 0 where there was none but "not available". */
	private lowest(from: number, to: number): number {
		let low = Infinity;
		for (let i = from; i <= to; i++) {
			const value = this.own[i] ?? NaN;
			if (value < low) low = value;
		}
		return Number.isFinite(low) ? low : 0;
	}

	private lasts(from: number, to: number): number {
		return (this.table.timeS[to] ?? 0) - (this.table.timeS[from] ?? 0) + this.table.intervalS;
	}

	private wasRight(i: number): boolean {
		return i >= 0 && (this.own[i] ?? NaN) > BACK_SHARE * (this.should[i] ?? NaN);
	}

	/** Whether the wheel reads with the others again later, when the vehicle rolls. */
	private laterReads(from: number): boolean {
		for (let i = from; i < this.own.length; i++) {
			if ((this.should[i] ?? NaN) > JUDGE_FROM_KMH && this.wasRight(i)) return true;
		}
		return false;
	}

	/**
	 * Whether the step between two neighbouring samples is most of the way to the far end, within the time that a jump of a
	 * signal takes; the mass of a wheel makes it slower.
	 */
	private jumps(a: number, b: number): boolean {
		const [inside, outside] = this.isAway(b) ? [b, a] : [a, b];
		const direction = Math.sign(inside - outside);
		const fullS = Math.max(JUMP_S, 1.2 * this.table.intervalS);
		const { timeS } = this.table;
		// As a share of the speed, which may fall meanwhile.
		const away = (i: number) => {
			const expected = this.should[i] ?? 0;
			return Math.abs((this.own[i] ?? 0) - expected) / Math.max(HIGH_KMH, expected);
		};
		// How deep it gets near this edge, then how soon it is most of the way there.
		const near = (i: number) => Math.abs((timeS[i] ?? 0) - (timeS[inside] ?? 0)) <= 4 * fullS;
		let deepest = 0;
		for (let i = inside; this.isAway(i) && near(i); i += direction) {
			if (this.invalid[i] === 1) return true;
			deepest = Math.max(deepest, away(i));
		}
		let deepAt = inside;
		while (away(deepAt) < MOST_OF_IT * deepest) deepAt += direction;
		let still = outside;
		while (still >= 0 && still < this.own.length && near(still) && away(still) > LITTLE_OF_IT * deepest) {
			still -= direction;
		}
		if (still < 0 || still >= this.own.length) return true;
		return Math.abs((timeS[deepAt] ?? 0) - (timeS[still] ?? 0)) <= fullS;
	}

	private isAway(i: number): boolean {
		if (i < 0 || i >= this.own.length) return false;
		const [value, expected] = [this.own[i] ?? NaN, this.should[i] ?? NaN];
		return (
			this.invalid[i] === 1 || value < BACK_SHARE * expected || value > AGAIN_SHARE * expected + AGAIN_KMH
		);
	}

	/** Mean change from one sample to the next, as a share of the reading. */
	private roughness(from: number, to: number): number {
		let [change, sum] = [0, 0];
		for (let i = from + 1; i <= to; i++) {
			const step = (this.own[i] ?? NaN) - (this.own[i - 1] ?? NaN);
			if (step !== step) continue;
			change += Math.abs(step);
			sum += this.own[i] ?? 0;
		}
		return sum > 0 ? change / sum : 0;
	}

	private risesKmhPerS(from: number): number {
		if (from === 0) return Infinity;
		const { timeS } = this.table;
		const rise = (this.own[from] ?? 0) - (this.own[from - 1] ?? 0);
		return rise / Math.max(1e-3, (timeS[from] ?? 0) - (timeS[from - 1] ?? 0));
	}

	/** Whether the brakes are on: by the switch where it is recorded, else by how the others lose speed. */
	private brakedAt(i: number): boolean {
		if (this.brakeSwitch && (this.brakeSwitch[i] ?? 0) >= 0.5) return true;
		const { timeS, reference } = this.table;
		const half = Math.max(1, Math.round(BRAKED_OVER_S / 2 / this.table.intervalS));
		const [a, b] = [Math.max(0, i - half), Math.min(reference.length - 1, i + half)];
		const slope = ((reference[b] ?? NaN) - (reference[a] ?? NaN)) / ((timeS[b] ?? 0) - (timeS[a] ?? 0));
		return slope < -BRAKED_KMH_PER_S;
	}

	/** Whether the vehicle stood right before (step −1) or after (step 1) a place, the others falling or rising all the way. */
	private standsNear(at: number, step: 1 | -1): boolean {
		for (let i = at; i >= 0 && i < this.should.length; i += step) {
			const now = this.should[i] ?? NaN;
			if (now < STANDSTILL_KMH) return true;
			// It rolled on above the judged speed, or slower with this wheel reading: it is not the standstill's doing.
			if (i !== at && (now > JUDGE_FROM_KMH || this.wasRight(i))) return false;
		}
		return false;
	}
}
