import type { Entry, EntryKind, EntryOf } from '../entries/entry';

/**
 * The entries that count: superseded and withdrawn ones left out, in the order in which things happened. An entry observed at the
 * same moment as another stands after it if it was received after it.
 */
export function standing(thread: readonly Entry[]): Entry[] {
	const replaced = new Set(
		thread.flatMap((entry) => [
			...(entry.supersedes ? [entry.supersedes.entryId] : []),
			...(entry.kind === 'withdrawn' ? [entry.payload.entryId] : [])
		])
	);
	return thread
		.filter((entry) => !replaced.has(entry.id))
		.sort((a, b) => Date.parse(a.observedAt) - Date.parse(b.observedAt) || a.seq - b.seq);
}

export const ofKind = <K extends EntryKind>(entries: readonly Entry[], kind: K): EntryOf<K>[] =>
	entries.filter((entry): entry is EntryOf<K> => entry.kind === kind);

export const latest = <K extends EntryKind>(entries: readonly Entry[], kind: K): EntryOf<K> | null =>
	entries.findLast((entry): entry is EntryOf<K> => entry.kind === kind) ?? null;

/** Whether `entry` happened after `other`, in a list that {@link standing} put in order. */
export const happenedAfter = (entries: readonly Entry[], entry: Entry, other: Entry | null): boolean =>
	other === null || entries.indexOf(entry) > entries.indexOf(other);
