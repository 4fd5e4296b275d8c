import { signalsOf, type Condition } from '../conditions/condition';
import { ConditionWatch } from '../conditions/conditionWatch';
import { bridged } from './bridged';
import type { Recording } from './recording';
import { signalLookup } from './signalLookup';

/** A condition with what it is for. */
export interface NamedCondition {
	name: string;
	condition: Condition;
}

/** When a condition was met in a recording. */
export interface ConditionOver {
	name: string;
	/** Each time: from the sample that first showed it to the last that did, seconds. At most {@link MOST_INTERVALS}. */
	intervals: { startS: number; endS: number }[];
	metS: number;
	/** When it was met first: when its code would have been set, or its test have run; null if never. */
	firstS: number | null;
	/** Signals that it speaks of and the recording does not have. */
	missing: string[];
}

const MOST_INTERVALS = 200;
/** Between samples further apart than this nobody knows what happened. */
const GAP_INTERVALS = 5;

/**
 * Holds conditions against every sample of a recording: set conditions tell when a code would have been set, test
 * conditions whether a drive could prove it gone. What the recording lacks stays unknown and is named.
 */
export function conditionsOver(recording: Recording, conditions: readonly NamedCondition[]): ConditionOver[] {
	const { timeS } = recording;
	const wanted = new Set(conditions.flatMap(({ condition }) => signalsOf(condition)));
	const channels = new Map(
		[...recording.channels]
			.filter(([name]) => wanted.has(name))
			.map(([name, column]) => [name, bridged(column, timeS)])
	);
	const intervalS = timeS.length > 1 ? ((timeS.at(-1) ?? 0) - (timeS[0] ?? 0)) / (timeS.length - 1) : 0;
	const maxGapS = Math.max(1, GAP_INTERVALS * intervalS);
	return conditions.map(({ name, condition }) => {
		const watch = new ConditionWatch(condition, maxGapS);
		const intervals: ConditionOver['intervals'] = [];
		let open: { startS: number; endS: number } | null = null;
		let metS = 0;
		let firstS: number | null = null;
		let at = 0;
		const lookup = signalLookup((signal) => channels.get(signal)?.[at]);
		for (at = 0; at < timeS.length; at++) {
			const now = timeS[at] ?? 0;
			if (watch.sample(now, lookup) !== 'met') {
				open = null;
				continue;
			}
			firstS ??= now;
			if (open && now - open.endS <= maxGapS) {
				metS += now - open.endS;
				open.endS = now;
			} else {
				open = { startS: now, endS: now };
				if (intervals.length < MOST_INTERVALS) intervals.push(open);
			}
		}
		const missing = signalsOf(condition).filter(
			(signal) => signal !== 'key_on' && !recording.channels.has(signal)
		);
		return { name, intervals, metS, firstS, missing };
	});
}
