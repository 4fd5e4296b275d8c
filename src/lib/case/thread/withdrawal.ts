import { featureOf, PAYLOADS, type EntryKind } from '../entries/registry';

/** Of an entry, what is asked to know whether it can be withdrawn. */
interface Before {
	id: string;
	kind: string;
	payload: unknown;
}

const isKnownKind = (kind: string): kind is EntryKind => Object.hasOwn(PAYLOADS, kind);

/** Whether an entry of a kind may be withdrawn: what was measured, looked at or driven, never what was read, done or said. */
export const mayBeWithdrawn = (kind: string): boolean =>
	isKnownKind(kind) && featureOf(kind).mayBeWithdrawn === true;

/** Why an entry cannot be withdrawn, in a sentence; null where it can. @param thread the entries before */
export function notWithdrawn(entryId: string, thread: readonly Before[]): string | null {
	const entry = thread.find(({ id }) => id === entryId);
	if (!entry) return 'There is no such entry on this thread.';
	if (!mayBeWithdrawn(entry.kind))
		return 'Only what was measured, looked at or driven can be withdrawn: what was read, done or said stays.';
	const already = thread.some(
		({ kind, payload }) => kind === 'withdrawn' && (payload as { entryId?: unknown }).entryId === entryId
	);
	return already ? 'It is withdrawn already.' : null;
}
