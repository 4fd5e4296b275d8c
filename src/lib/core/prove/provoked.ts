import { exposureNeeded, silentChance } from './silentChance';

/** What was done to make a fault show: before the repair, and the same since. */
export interface Provoked {
	/** What was done: "plug X20 moved". */
	words: string;
	before: { changes: number; seconds: number };
	since: { changes: number; seconds: number };
}

/** A place that was moved for less than this before it let go is taken to have been moved for so long, seconds. */
const LEAST_S = 1;

const silent = ({ before, since }: Provoked, seconds = since.seconds): number =>
	silentChance(before.changes, Math.max(LEAST_S, before.seconds), seconds);

/** What made it show before: only that can be done again. */
const showing = (list: readonly Provoked[]): Provoked[] => list.filter(({ before }) => before.changes > 0);

/** Chance that a fault which was not repaired would have stayed silent through all that was done again; 1 where nothing was. */
export const provokedChance = (list: readonly Provoked[]): number =>
	showing(list).reduce((p, one) => p * silent(one), 1);

/** What makes it show soonest has to be done again, whatever else is. */
export const strongest = (list: readonly Provoked[]): Provoked | null =>
	showing(list).sort(
		(a, b) =>
			b.before.changes / Math.max(LEAST_S, b.before.seconds) -
			a.before.changes / Math.max(LEAST_S, a.before.seconds)
	)[0] ?? null;

/**
 * Seconds for which the strongest of them has still to be done, until the chance that all of it would have stayed silent
 * unrepaired is down to the target; 0 once it is.
 */
export function furtherSeconds(list: readonly Provoked[], target: number): number {
	const first = strongest(list);
	if (!first) return 0;
	const others = provokedChance(list.filter((one) => one !== first));
	if (others <= target && first.since.seconds > 0) return 0;
	// Others that are silent may shorten it, and never replace it.
	const own = Math.max(target, Math.min(0.5, target / others));
	const needed = exposureNeeded(first.before.changes, Math.max(LEAST_S, first.before.seconds), own);
	return Math.max(0, needed - first.since.seconds);
}

const seconds = (s: number): string => `${s < 10 ? Number(s.toFixed(1)) : Math.round(s)} s`;
const times = (n: number): string => (n === 1 ? 'once' : `${n} times`);

/** One sentence for the checklist; null where nothing was provoked. */
export function provokedWords(list: readonly Provoked[], target: number): string | null {
	const again = list.find(({ since }) => since.changes > 0);
	if (again)
		return `It changed ${times(again.since.changes)}${again.before.changes > 0 ? ' again' : ''} since the repair, with ${again.words}: it is not mended there.`;
	const first = strongest(list);
	if (!first) return null;
	const { before, since } = first;
	const came = `Before the repair it changed ${times(before.changes)} in ${seconds(before.seconds)} with ${first.words}`;
	const further = furtherSeconds(list, target);
	const percent = `${Number((provokedChance(list) * 100).toFixed(1))} %`;
	if (since.seconds === 0) return `${came}. Do the same again, for ${seconds(Math.ceil(further))}.`;
	return further > 0
		? `${came}; ${seconds(since.seconds)} of the same since, and nothing. Unrepaired, that far it would stay silent with ${percent}: ${seconds(Math.ceil(further))} more.`
		: `${came}; ${seconds(since.seconds)} of the same since, and nothing. Unrepaired, it would have stayed silent with ${percent}.`;
}
