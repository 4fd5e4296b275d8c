import { z } from 'zod';
import { ENTRY_VERSION, EntryDraft, type Entry, type EntryKind, type PayloadOf } from '../../case/entry';
import { fail, type Result } from '../../core/result';
import type { Author } from '../db/threads';
import { services } from '../running';

export interface NewEntry<K extends EntryKind> {
	id: string;
	caseId: string;
	kind: K;
	payload: PayloadOf<K>;
	/** The entry this one corrects. A correction stands at the time of what it corrects. */
	supersedes?: { entryId: string; why: string } | null;
	observedAt?: string;
}

/** Puts an entry on its thread and brings the floor up to date. The error is a sentence for the person. */
export async function addEntry<K extends EntryKind>(
	entry: NewEntry<K>,
	author: Author
): Promise<Result<Entry>> {
	const { threads, cases } = services();
	const corrected = entry.supersedes
		? (await threads.read(entry.caseId)).find((e) => e.id === entry.supersedes?.entryId)
		: undefined;
	const draft = EntryDraft.safeParse({
		...entry,
		version: ENTRY_VERSION,
		supersedes: entry.supersedes ?? null,
		observedAt: corrected?.observedAt ?? entry.observedAt ?? new Date().toISOString()
	});
	if (!draft.success) return fail(z.prettifyError(draft.error));
	const stored = await threads.append(draft.data, author);
	if (!stored.ok) return fail(stored.error.text);
	await cases.refresh(entry.caseId);
	return stored;
}
