import { isWheel } from '../../core/live/recording';
import { isMending } from '../mend/calibrations';
import type { Entry, EntryOf } from '../entries/entry';

/** A stretch of a recording that is worth a picture on paper. */
export interface KeyTrace {
	/** The recording. */
	id: string;
	/** Whose line is the thick one. */
	channel: string;
	fromS: number;
	toS: number;
	side: 'as it came' | 'as it goes';
	/** What it shows, in one sentence. */
	words: string;
}

const MOST_TRACES = 2;
const BEFORE_S = 3;
const SHOWN_S = 10;
/** A drive that shows nothing is shown at length. */
const SHOWN_CLEAN_S = 60;

/**
 * The pictures that tell the case: what a wheel did before it was mended, and the same wheel after. What happened most
 * often comes first.
 */
export function keyTraces(entries: readonly Entry[]): KeyTrace[] {
	const recordings = entries.flatMap((entry, at) => (entry.kind === 'live-recording' ? [{ entry, at }] : []));
	const mendedAt = entries.findLastIndex(isMending);
	const found = recordings
		.filter(({ at }) => mendedAt < 0 || at < mendedAt)
		.flatMap(({ entry }) => entry.payload.findings.map((finding) => ({ entry, finding })))
		.filter(({ finding }) => isWheel(finding.channel))
		.sort((a, b) => b.finding.count - a.finding.count);
	const shown = new Map<string, KeyTrace>();
	for (const { entry, finding } of found) {
		if (shown.size === MOST_TRACES || shown.has(finding.channel)) continue;
		const fromS = Math.max(0, finding.startS - BEFORE_S);
		shown.set(finding.channel, {
			id: entry.id,
			channel: finding.channel,
			fromS,
			toS: Math.min(entry.payload.durationS, fromS + SHOWN_S),
			side: 'as it came',
			words: finding.text
		});
	}
	const since = recordings.filter(({ at }) => mendedAt >= 0 && at > mendedAt).map(({ entry }) => entry);
	return [...shown.values()].flatMap((before) => [before, ...after(since, before.channel)]);
}

function after(since: readonly EntryOf<'live-recording'>[], channel: string): KeyTrace[] {
	const last = since.findLast(({ payload }) => payload.channels.includes(channel));
	if (!last) return [];
	const finding = last.payload.findings.find((one) => one.channel === channel);
	const fromS = finding ? Math.max(0, finding.startS - BEFORE_S) : 0;
	const toS = Math.min(last.payload.durationS, fromS + (finding ? SHOWN_S : SHOWN_CLEAN_S));
	const words = finding?.text ?? 'Nothing was found in it.';
	return [{ id: last.id, channel, fromS, toS, side: 'as it goes', words }];
}
