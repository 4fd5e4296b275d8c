import { z } from 'zod';
import {
	ENTRY_VERSION,
	EntryDraft,
	type Entry,
	type EntryKind,
	type PayloadOf
} from '../../case/entries/entry';
import { fail, type Result } from '../../core/result';
import { typeOf } from '../../case/thread/vehicleOf';
import { notWithdrawn } from '../../case/thread/withdrawal';
import { unknownId } from '../../case/thread/unknownIds';
import type { AppendOptions, Author } from '../db/threads';
import { notKept } from './keptBeside';
import type { Services } from '../services';

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
	services: Pick<Services, 'threads' | 'cases' | 'photos' | 'captures' | 'heavy'>,
	entry: NewEntry<K>,
	author: Author,
	options: AppendOptions = {}
): Promise<Result<Entry>> {
	const { threads, cases } = services;
	const thread = await threads.read(entry.caseId);
	const corrected = entry.supersedes ? thread.find((e) => e.id === entry.supersedes?.entryId) : undefined;
	const draft = EntryDraft.safeParse({
		...entry,
		version: ENTRY_VERSION,
		supersedes: entry.supersedes ?? null,
		observedAt: corrected?.observedAt ?? entry.observedAt ?? new Date().toISOString()
	});
	if (!draft.success) return fail(z.prettifyError(draft.error));
	const refused =
		(draft.data.kind === 'withdrawn' ? notWithdrawn(draft.data.payload.entryId, thread) : null) ??
		unknownId(draft.data.kind, draft.data.payload, typeOf(thread)) ??
		(await notKept(services, entry.caseId, draft.data));
	if (refused) return fail(refused);
	const stored = await threads.append(draft.data, author, options);
	if (!stored.ok) return fail(stored.error.text);
	// A closed case leaves the floor at once; all else may follow.
	if (draft.data.kind === 'signature') await cases.refresh(entry.caseId);
	else cases.later(entry.caseId);
	return stored;
}
