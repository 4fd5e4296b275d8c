import type { Entry } from '../entries/entry';

/** Kinds that say nothing about what is wrong, whatever stands in them: free words never become evidence. */
const SAY_NOTHING: ReadonlySet<Entry['kind']> = new Set([
	'note',
	'waiting',
	'promised',
	'assigned',
	'unknown'
]);

/**
 * What a reasoning rests on: the same standing entries that can say something give the same reasoning, so that a note written
 * down meanwhile has nothing worked out anew.
 *
 * @param entries standing entries in order
 */
export const restsOn = (entries: readonly Entry[]): string =>
	entries
		.filter(({ kind }) => !SAY_NOTHING.has(kind))
		.map(({ hash }) => hash)
		.join(' ');
