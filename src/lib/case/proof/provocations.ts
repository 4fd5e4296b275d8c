import type { Provoked } from '../../core/prove/provoked';
import type { LiveRecording, TriedThing } from '../entries/live-recording/payload';
import { provokingWords, thingKey } from '../entries/live-recording/triedWords';
import type { Entry } from '../entries/entry';
import { isMending } from '../mend/calibrations';

/** What was done to a wheel's circuit to make it show, on the thread. */

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

const triedAt = ({ tried = [] }: Pick<LiveRecording, 'tried'>, position: string | null): TriedThing[] =>
	tried.filter((one) => one.position === position);

/** What made a wheel's fault show, before the repair or since. */
export const provokedAt = (entries: readonly Entry[], position: string | null): Tries[] =>
	triesAt(entries, position).filter(({ before, since }) => before.changes > 0 || since.changes > 0);
