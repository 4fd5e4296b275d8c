import type { Levels } from './levels';

/** The pulses of one channel, in the order in which they came. */
export interface Pulses {
	count: number;
	/** Rising crossing of the upper threshold, in samples, between two of them in proportion. */
	rise: Float64Array;
	/** Falling crossing of the lower threshold after it; NaN where the capture ends before. */
	fall: Float64Array;
	/** Highest while up, and the sample at which. */
	top: Float32Array;
	topAt: Float64Array;
	/** Lowest between this pulse and the next, and the sample at which. */
	bottom: Float32Array;
	bottomAt: Float64Array;
}

/** Hysteresis of an active signal, in shares of its swing. */
const ACTIVE_UP = 0.6;
const ACTIVE_DOWN = 0.4;
/** Of a passive one, in shares of its amplitude either side of its middle: noise in the gap of a tooth stays inside. */
const PASSIVE_REACH = 0.5;
/** How fast the amplitude that a passive signal is measured against follows its last pulses. */
const FOLLOW = 0.4;
/** A pulse counts as at most this many times the height that was expected of it. */
const GROWTH = 1.8;
/** The reach is never below so many times the noise. */
const ABOVE_NOISE = 5;
/** Without a pulse for so many periods the reach is halved, until it finds one or meets the noise. */
const PATIENCE_PERIODS = 4;
const FIRST_LOOK_SHARE = 0.005;
const FIRST_LOOK_LEAST = 400;

class PulseList {
	private room = 1024;
	count = 0;
	rise = new Float64Array(this.room);
	fall = new Float64Array(this.room);
	top = new Float32Array(this.room);
	topAt = new Float64Array(this.room);
	bottom = new Float32Array(this.room);
	bottomAt = new Float64Array(this.room);

	open(rise: number): void {
		if (this.count === this.room) this.grow();
		this.rise[this.count] = rise;
		this.fall[this.count] = NaN;
		this.count += 1;
	}

	private grow(): void {
		this.room *= 2;
		const wider = <T extends Float64Array | Float32Array>(list: T, next: T): T => {
			next.set(list);
			return next;
		};
		this.rise = wider(this.rise, new Float64Array(this.room));
		this.fall = wider(this.fall, new Float64Array(this.room));
		this.top = wider(this.top, new Float32Array(this.room));
		this.topAt = wider(this.topAt, new Float64Array(this.room));
		this.bottom = wider(this.bottom, new Float32Array(this.room));
		this.bottomAt = wider(this.bottomAt, new Float64Array(this.room));
	}

	taken(): Pulses {
		const { count } = this;
		return {
			count,
			rise: this.rise.subarray(0, count),
			fall: this.fall.subarray(0, count),
			top: this.top.subarray(0, count),
			topAt: this.topAt.subarray(0, count),
			bottom: this.bottom.subarray(0, count),
			bottomAt: this.bottomAt.subarray(0, count)
		};
	}
}

/** Some pulses of a channel, by whether each is kept. */
export function keptPulses(pulses: Pulses, keep: (nth: number) => boolean): Pulses {
	const kept = (_: number, nth: number) => keep(nth);
	return {
		count: pulses.rise.filter(kept).length,
		rise: pulses.rise.filter(kept),
		fall: pulses.fall.filter(kept),
		top: pulses.top.filter(kept),
		topAt: pulses.topAt.filter(kept),
		bottom: pulses.bottom.filter(kept),
		bottomAt: pulses.bottomAt.filter(kept)
	};
}

/** Place between two samples at which the line through them meets a level. */
const between = (index: number, before: number, after: number, level: number) =>
	index - 1 + (after === before ? 1 : (level - before) / (after - before));

/** Pulses of a signal with two fixed levels. */
export function activePulses(volts: Float32Array, { lowV, highV }: Levels): Pulses {
	const swing = highV - lowV;
	return findPulses(volts, {
		middle: lowV + swing / 2,
		reachUp: (ACTIVE_UP - 0.5) * swing,
		reachDown: (0.5 - ACTIVE_DOWN) * swing,
		follows: false,
		leastReach: 0
	});
}

/** Pulses of a signal whose amplitude goes with speed and gap: the levels follow the last pulses. */
export function passivePulses(volts: Float32Array, { noiseV, lowV, highV }: Levels): Pulses {
	const look = Math.min(
		volts.length,
		Math.max(FIRST_LOOK_LEAST, Math.floor(volts.length * FIRST_LOOK_SHARE))
	);
	let [low, high] = [Infinity, -Infinity];
	for (let i = 0; i < look; i++) {
		low = Math.min(low, volts[i] ?? 0);
		high = Math.max(high, volts[i] ?? 0);
	}
	const most = (highV - lowV) / 2;
	const leastReach = Math.min(ABOVE_NOISE * noiseV, 0.5 * most);
	const reach = Math.max(leastReach, (PASSIVE_REACH * (high - low)) / 2);
	return findPulses(volts, {
		middle: (low + high) / 2,
		reachUp: reach,
		reachDown: reach,
		follows: true,
		leastReach
	});
}

interface Thresholds {
	middle: number;
	reachUp: number;
	reachDown: number;
	follows: boolean;
	leastReach: number;
}

/**
 * One pass: two thresholds around a middle. A pulse is dated at its thresholds and not at the middle, where a passive
 * signal rests while no tooth passes.
 */
function findPulses(volts: Float32Array, start: Thresholds): Pulses {
	const list = new PulseList();
	let { middle } = start;
	const { follows, leastReach } = start;
	let up = middle + start.reachUp;
	let down = middle - start.reachDown;
	let isUp = (volts[0] ?? 0) > middle;
	// A capture that begins up has no rising edge of its own.
	let started = !isUp;
	let [extreme, extremeAt] = [volts[0] ?? 0, 0];
	let before = volts[0] ?? 0;
	let period = 0;
	let patience = Infinity;
	const { length } = volts;
	for (let i = 1; i < length; i++) {
		const now = volts[i] as number;
		if (isUp) {
			if (now > extreme) {
				extreme = now;
				extremeAt = i;
			}
			if (now < down) {
				isUp = false;
				if (started && list.count > 0) {
					const n = list.count - 1;
					list.fall[n] = between(i, before, now, down);
					list.top[n] = extreme;
					list.topAt[n] = extremeAt;
				}
				started = true;
				extreme = now;
				extremeAt = i;
			}
		} else {
			if (now < extreme) {
				extreme = now;
				extremeAt = i;
			}
			if (now > up) {
				isUp = true;
				const n = list.count - 1;
				if (n >= 0) {
					list.bottom[n] = extreme;
					list.bottomAt[n] = extremeAt;
				}
				const rise = between(i, before, now, up);
				list.open(rise);
				if (n >= 0) {
					period = rise - (list.rise[n] ?? 0);
					patience = i + PATIENCE_PERIODS * period;
					if (follows) {
						// A spike is no wave: it may raise the reach a little only.
						const most = (GROWTH * (up - middle)) / PASSIVE_REACH;
						const top = Math.min(list.top[n] ?? 0, middle + most);
						const low = Math.max(extreme, middle - most);
						const reach = Math.max(leastReach, (PASSIVE_REACH * (top - low)) / 2);
						const wanted = middle + FOLLOW * ((top + low) / 2 - middle);
						const nextReach = up - middle + FOLLOW * (reach - (up - middle));
						middle = wanted;
						up = middle + nextReach;
						down = middle - nextReach;
					}
				}
				extreme = now;
				extremeAt = i;
			}
		}
		if (follows && i > patience) {
			const reach = Math.max(leastReach, (up - middle) / 2);
			up = middle + reach;
			down = middle - reach;
			patience = i + (PATIENCE_PERIODS / 2) * period;
		}
		before = now;
	}
	const n = list.count - 1;
	if (n >= 0 && isUp) {
		list.top[n] = extreme;
		list.topAt[n] = extremeAt;
		list.bottom[n] = NaN;
		list.bottomAt[n] = NaN;
	} else if (n >= 0) {
		list.bottom[n] = extreme;
		list.bottomAt[n] = extremeAt;
	}
	return list.taken();
}
