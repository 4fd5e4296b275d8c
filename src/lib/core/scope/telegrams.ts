import {
	BIT_S,
	decodeTelegram,
	PAUSE_BITS,
	PULSE_WIDTHS_S,
	STANDING_EACH_S,
	STANDING_PULSE_EACH_S,
	TELEGRAM_BITS,
	type PulseSays,
	type Telegram
} from '../electrical/sensorTelegrams';
import type { Direction, SensorSays } from './findings';
import type { Levels } from './levels';
import { middleOf } from './middleOf';
import { keptPulses, type Pulses } from './pulses';

/** Fewer samples than this to half a bit, or to a pulse, cannot be read. */
const LEAST_SAMPLES = 2.5;
const LEAST_PULSE_SAMPLES = 4;
const LEAST_PULSES = 4;
/** Of the middle of half a bit, so much is looked at. */
const LOOKED_AT = 0.5;

/**
 * What a sensor says of itself: by the bits after each tooth's pulse of a signal of three levels, or by the lengths of the
 * pulses of one of two. Null where it says nothing, or is sampled too slowly to be read.
 */
export function saysOf(
	volts: Float32Array,
	pulses: Pulses,
	levels: Levels,
	rateHz: number,
	timeAt: (sample: number) => number
): SensorSays | null {
	if (levels.kind !== 'active' || pulses.count < LEAST_PULSES) return null;
	return levels.middleV === null
		? byPulseWidth(pulses, rateHz, timeAt)
		: byBits(volts, pulses, (levels.lowV + levels.middleV) / 2, timeAt);
}

const widthsOf = ({ count, rise, fall }: Pulses): Float64Array =>
	Float64Array.from({ length: count }, (_, i) => (fall[i] ?? NaN) - (rise[i] ?? NaN));

function byBits(
	volts: Float32Array,
	pulses: Pulses,
	threshold: number,
	timeAt: (sample: number) => number
): SensorSays | null {
	const width = middleOf(widthsOf(pulses).filter((one) => one > 0));
	if (!(width >= 2 * LEAST_SAMPLES)) return null;
	const isUp = (from: number) => {
		const [first, last] = [
			Math.ceil(from + (width * LOOKED_AT) / 4),
			from + width / 2 - (width * LOOKED_AT) / 4
		];
		let [sum, n] = [0, 0];
		for (let i = first; i <= last; i++, n++) sum += volts[i] ?? NaN;
		return sum / n > threshold;
	};
	let wrong = 0;
	const told: { at: number; telegram: Telegram }[] = [];
	for (let i = 0; i < pulses.count; i++) {
		const start = pulses.rise[i] ?? 0;
		const first = start + (1 + PAUSE_BITS) * width;
		const end = first + TELEGRAM_BITS * width;
		// What the next tooth cuts short is not read.
		if (end > Math.min(pulses.rise[i + 1] ?? Infinity, volts.length - 1)) continue;
		const halves = Array.from({ length: 2 * TELEGRAM_BITS }, (_, half) => isUp(first + (half * width) / 2));
		const bits = Array.from({ length: TELEGRAM_BITS }, (_, bit) => halves[2 * bit + 1] ?? false);
		const isManchester = bits.every((bit, at) => halves[2 * at] !== bit);
		const telegram = isManchester ? decodeTelegram(bits) : null;
		if (telegram) told.push({ at: timeAt(start), telegram });
		else wrong += 1;
	}
	if (told.length === 0) return null;
	return {
		protocol: 'bits',
		read: told.length,
		wrong,
		weak: told.filter(({ telegram }) => telegram.weak).length,
		strength: middleOf(told.map(({ telegram }) => telegram.strength)),
		standing: 0,
		direction: directionOf(
			told.flatMap(({ at, telegram }) =>
				telegram.directionKnown ? [{ at, forwards: telegram.forwards }] : []
			)
		)
	};
}

/** A length is that of the list that it is this near to; one sample either way is the instrument's. */
const NEAR = 0.14;
/** So many must be of the list before it is held for this kind of sensor. */
const MOST_OF_THEM = 0.9;
/** A plain sensor is up for about half of a tooth, whatever its speed. */
const SHORT_SHARE = 0.35;

function byPulseWidth(pulses: Pulses, rateHz: number, timeAt: (sample: number) => number): SensorSays | null {
	const names = Object.keys(PULSE_WIDTHS_S) as PulseSays[];
	const widths = widthsOf(pulses);
	const nameOf = (nth: number) =>
		names.find((name) => {
			const width = PULSE_WIDTHS_S[name] * rateHz;
			const isNear = Math.abs((widths[nth] ?? NaN) - width) < Math.max(NEAR * width, 1);
			return isNear && (name !== 'standing' || isAlone(pulses, nth, rateHz));
		});
	const all = [...widths].flatMap((width, i) =>
		width > 0 ? [{ at: timeAt(pulses.rise[i] ?? 0), width, says: nameOf(i) }] : []
	);
	const named = all.flatMap(({ at, says }) => (says ? [{ at, says }] : []));
	const shortest = Math.min(...all.map(({ width }) => width));
	if (named.length < MOST_OF_THEM * all.length || !(shortest >= LEAST_PULSE_SAMPLES)) return null;
	const count = (name: PulseSays) => named.filter(({ says }) => says === name).length;
	const teeth = named.filter(({ says }) => says !== 'standing');
	const periods = Float64Array.from(
		{ length: Math.max(0, pulses.count - 1) },
		(_, i) => (pulses.rise[i + 1] ?? 0) - (pulses.rise[i] ?? 0)
	);
	const share = middleOf(all.map(({ width }) => width)) / middleOf(periods);
	if (teeth.length > 0 && !(share < SHORT_SHARE)) return null;
	return {
		protocol: 'pulse-width',
		read: named.length,
		wrong: all.length - named.length,
		weak: count('weak'),
		strength: null,
		standing: count('standing'),
		direction: directionOf(
			named.flatMap(({ at, says }) =>
				says === 'forwards' || says === 'backwards' ? [{ at, forwards: says === 'forwards' }] : []
			)
		)
	};
}

/** Null where nothing says which way. */
function directionOf(told: readonly { at: number; forwards: boolean }[]): Direction | null {
	if (told.length === 0) return null;
	const changesAt: number[] = [];
	for (let i = 2; i + 1 < told.length; i++) {
		const [before, last, now, next] = [told[i - 2], told[i - 1], told[i], told[i + 1]];
		// One odd telegram is noise; a change lasts.
		if (
			now?.forwards !== last?.forwards &&
			now?.forwards === next?.forwards &&
			last?.forwards === before?.forwards
		)
			changesAt.push(now?.at ?? NaN);
	}
	const forwards = told.filter((one) => one.forwards).length;
	return { forwards, backwards: told.length - forwards, changesAt };
}

/** The bits of one telegram follow each other within this. */
const TELEGRAM_S = (1 + PAUSE_BITS + TELEGRAM_BITS) * BIT_S * 1.1;
const OFTEN_WITHIN = 0.12;

/** The pulses without those by which a sensor said that it stood: they are no teeth. */
export function withoutStanding(pulses: Pulses, rateHz: number): Pulses {
	const widths = widthsOf(pulses);
	const long = PULSE_WIDTHS_S.standing * rateHz;
	const stands = (nth: number) =>
		Math.abs((widths[nth] ?? NaN) / long - 1) < NEAR && isAlone(pulses, nth, rateHz);
	return keptPulses(pulses, (nth) => !stands(nth));
}

/** Whether no other pulse came for long before one: those that tell of a standstill come rarely. */
function isAlone({ rise }: Pulses, nth: number, rateHz: number): boolean {
	const before = nth > 0 ? (rise[nth - 1] ?? 0) : -Infinity;
	const after = rise[nth + 1] ?? Infinity;
	const here = rise[nth] ?? 0;
	const rare = STANDING_PULSE_EACH_S * (1 - OFTEN_WITHIN) * rateHz;
	return here - before > rare || (nth === 0 && after - here > rare);
}

/** What a sensor at which no tooth passes says; null where anything else is in the signal. */
export function standingTold(pulses: Pulses, rateHz: number): SensorSays | null {
	const starts: number[] = [];
	const ends: number[] = [];
	for (let i = 0; i < pulses.count; i++) {
		const [rise, fall] = [(pulses.rise[i] ?? 0) / rateHz, (pulses.fall[i] ?? NaN) / rateHz];
		const start = starts.at(-1);
		if (start === undefined || rise - start > TELEGRAM_S) {
			starts.push(rise);
			ends.push(fall);
		} else ends[ends.length - 1] = fall;
	}
	const lengths = starts.map((start, i) => (ends[i] ?? NaN) - start);
	const apart = starts.slice(1).map((start, i) => start - (starts[i] ?? 0));
	const every = (eachS: number) => apart.every((one) => Math.abs(one / eachS - 1) < OFTEN_WITHIN);
	const long = PULSE_WIDTHS_S.standing;
	const n = starts.length;
	if (n === 0) return null;
	const told = { read: n, wrong: 0, weak: 0, strength: null, standing: n, direction: null };
	if (lengths.every((one) => Math.abs(one / long - 1) < NEAR) && every(STANDING_PULSE_EACH_S))
		return { protocol: 'pulse-width', ...told };
	const short = lengths.every((one) => one < TELEGRAM_S);
	return n > 1 && short && every(STANDING_EACH_S) ? { protocol: 'bits', ...told } : null;
}
