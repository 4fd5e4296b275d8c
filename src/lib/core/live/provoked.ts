import { medianOf } from './medianOf';
import { isNotAvailable, sampleIntervalS } from './recording';

/**
 * One wheel turned slowly by hand while its circuit is moved, wetted, warmed or bent. A wheel has weight: it neither stops nor
 * starts within a moment. A value that falls or jumps at once and is back as quickly is a change of the signal; one that comes
 * back gradually is the hand that turns. One that stays away is either, so somebody has to say that the wheel still turns; that
 * a module tells "not available" needs no such word.
 */

/** Below this a wheel that is turned by hand stands. */
export const TURNS_KMH = 1;
/** The value before is that of so long. */
const BEFORE_S = 1;
/** Below this share of what it was a value is gone. */
export const GONE_SHARE = 0.4;
const BACK_SHARE = 0.7;
const JUMP_SHARE = 1.6;
const JUMP_KMH = 3;
/** No hand changes the speed of a wheel as quickly. */
const AT_ONCE_S = 0.3;
const AT_ONCE_SAMPLES = 2.5;

/** Something that was begun at a moment and went on until the next. */
export interface Done {
	atS: number;
	label: string;
}

/** What was done to a wheel, for how long it turned meanwhile, and how often its value changed. */
export interface Tried {
	label: string;
	seconds: number;
	changes: number;
}

interface Samples {
	/** Seconds, rising. */
	timeS: Float64Array;
	/** Of the wheel; NaN where not read. */
	kmh: Float64Array;
}

/**
 * When a signal changed.
 *
 * @param turnsStill moments at which somebody said that the wheel still turns
 * @returns seconds, in order
 */
export function changesOf({ timeS, kmh }: Samples, turnsStill: readonly number[] = []): number[] {
	const found: number[] = [];
	const atOnceS = Math.max(AT_ONCE_S, AT_ONCE_SAMPLES * (sampleIntervalS({ timeS }) || 0));
	let before: { atS: number; kmh: number }[] = [];
	let away: { sinceS: number; lastS: number; level: number; how: 'gone' | 'jump'; counted: boolean } | null =
		null;
	for (let i = 0; i < timeS.length; i++) {
		const atS = timeS[i] ?? 0;
		const value = kmh[i] ?? NaN;
		if (Number.isNaN(value)) continue;
		const now = isNotAvailable(value) ? 0 : value;
		if (away) {
			const { level, how } = away;
			if (how === 'gone' ? now < GONE_SHARE * level : now > JUMP_SHARE * level + JUMP_KMH) {
				away.lastS = atS;
				const { sinceS } = away;
				const told = isNotAvailable(value) || turnsStill.some((said) => said >= sinceS && said <= atS);
				if (!away.counted && told) {
					found.push(sinceS);
					away.counted = true;
				}
				continue;
			}
			if (how === 'gone' && now < BACK_SHARE * level && atS - away.lastS <= atOnceS) continue;
			if (!away.counted && atS - away.lastS <= atOnceS) found.push(away.sinceS);
			away = null;
			before = [];
		}
		before = before.filter((one) => atS - one.atS <= BEFORE_S);
		const level = medianOf(before.map((one) => one.kmh));
		const usual = before.some((one) => atS - one.atS <= atOnceS && one.kmh >= BACK_SHARE * level);
		const gone = now < GONE_SHARE * level;
		if (before.length >= 2 && usual && (gone || now > JUMP_SHARE * level + JUMP_KMH)) {
			away = { sinceS: atS, lastS: atS, level, how: gone ? 'gone' : 'jump', counted: false };
			continue;
		}
		if (now > TURNS_KMH) before.push({ atS, kmh: now });
	}
	return found;
}

/**
 * What each thing that was done showed. A change belongs to what was done last before it.
 *
 * @param done in order of time; something with an empty label ends what was before it
 */
export function triedIn(
	samples: Samples,
	done: readonly Done[],
	turnsStill: readonly number[] = []
): Tried[] {
	const changes = changesOf(samples, turnsStill);
	const byLabel = new Map<string, Tried>();
	for (const [nth, { atS, label }] of done.entries()) {
		if (label === '') continue;
		const untilS = done[nth + 1]?.atS ?? Infinity;
		const known = byLabel.get(label) ?? { label, seconds: 0, changes: 0 };
		known.seconds += turningS(samples, atS, untilS);
		known.changes += changes.filter((one) => one >= atS && one < untilS).length;
		byLabel.set(label, known);
	}
	return [...byLabel.values()];
}

/** For how long a wheel turned, or its value was away while it did. */
export function turningS({ timeS, kmh }: Samples, fromS: number, untilS: number): number {
	let sum = 0;
	for (let i = 1; i < timeS.length; i++) {
		const atS = timeS[i] ?? 0;
		if (atS <= fromS || atS > untilS) continue;
		const value = kmh[i] ?? NaN;
		if (value > TURNS_KMH && !isNotAvailable(value)) sum += Math.min(1, atS - (timeS[i - 1] ?? 0));
	}
	return sum;
}
