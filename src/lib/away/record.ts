import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import type { EntryKind, PayloadOf } from '../case/entries/entry';
import { ENTRY_VERSION } from '../case/entries/entryVersion';
import { upperFirst } from '../case/words';
import { outbox } from './outbox.svelte';
import { gistOf } from './recorded';

/**
 * Puts an entry on a case from a page, or keeps it on this device until the server has it; says what went wrong. The same `id`
 * again stores it once.
 *
 * @returns false where it is neither stored nor kept
 */
export async function sendEntry<K extends EntryKind>(
	caseId: string,
	kind: K,
	payload: PayloadOf<K>,
	id = ulid(),
	supersedes: { entryId: string; why: string } | null = null
): Promise<'stored' | 'kept' | false> {
	const body = JSON.stringify({
		id,
		kind,
		version: ENTRY_VERSION,
		observedAt: new Date().toISOString(),
		payload,
		supersedes
	});
	const sent = await outbox.record({
		id,
		caseId,
		what: upperFirst(kind.replaceAll('-', ' ')),
		gist: gistOf(payload),
		path: `/cases/${caseId}/entries`,
		type: 'application/json',
		body
	});
	if (sent.state === 'arrived') return 'stored';
	if (sent.state === 'waits') {
		toast.info(outbox.keptWords);
		return 'kept';
	}
	toast.error(sent.why);
	return false;
}
