import type { Provoked } from '../../core/prove/provoked';
import type { LiveRecording, TriedThing } from '../entries/live-recording/payload';
import type { Entry } from '../entries/entry';
import { isMending } from '../mend/calibrations';

/** What was done to a wheel's circuit to make it show, on the thread. */

/** What is done, in words that end a sentence: "plug X20 moved". */
export function provokingWords({ does, label }: Pick<TriedThing, 'does' | 'label'>): string {
	switch (does) {
		case 'move':
			return `the ${label} moved`;
		case 'wet':
			return 'water on plug and lead';
		case 'warm':
			return 'hot air at the sensor';
		case 'lock':
			return 'the steering from lock to lock';
		case 'in-gear':
			return 'the wheels in gear on stands';
	}
}

/** The same thing done at another time is the same thing. */
export const thingKey = ({ does, label }: Pick<TriedThing, 'does' | 'label'>): string =>
	does === 'move' ? `move ${label}` : does;

/** One thing, with all that was done of it before the latest repair and since. */
export interface Tries extends Pick<TriedThing, 'does' | 'label' | 'is'>, Provoked {
	key: string;
}

/** @param entries standing entries in order, without those made while something of ours was in the way */
export function triesAt(entries: readonly Entry[], position: string | null): Tries[] {
	const mended = entries.findLastIndex(isMending);
	const found = new Map<string, Tries>();
	for (const [at, entry] of entries.entries()) {
		if (entry.kind !== 'live-recording') continue;
		for (const one of triedAt(entry.payload, position)) {
			const key = thingKey(one);
			const { does, label, is } = one;
			const none = { changes: 0, seconds: 0 };
			const known =
				found.get(key) ??
				({
					key,
					does,
					label,
					is,
					words: provokingWords(one),
					before: { ...none },
					since: { ...none }
				} as Tries);
			const sum = mended >= 0 && at > mended ? known.since : known.before;
			sum.changes += one.changes;
			sum.seconds += one.seconds;
			found.set(key, known);
		}
	}
	return [...found.values()];
}

export const triedAt = (
	{ tried = [] }: Pick<LiveRecording, 'tried'>,
	position: string | null
): TriedThing[] => tried.filter((one) => one.position === position);

/** What made a wheel's fault show before the repair. */
export const provokedBefore = (entries: readonly Entry[], position: string | null): Tries[] =>
	triesAt(entries, position).filter(({ before }) => before.changes > 0);
