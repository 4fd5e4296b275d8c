import { featureOf } from '../../case/entries/registry';
import type { EntryDraft } from '../../case/entries/entry';
import type { Services } from '../services';

/**
 * What an entry says is kept beside it and is not, in a sentence; null where all of it is there, byte for byte. An entry that
 * names what does not exist would spoil every bundle of its case.
 */
export async function notKept(
	{ photos, captures, heavy }: Pick<Services, 'photos' | 'captures' | 'heavy'>,
	caseId: string,
	entry: EntryDraft
): Promise<string | null> {
	for (const { id, sha256 } of featureOf(entry.kind).photos?.(entry.payload) ?? []) {
		if ((await photos.hashOf(caseId, id)) !== sha256)
			return 'A photo that it names is not on this case: take it once more.';
	}
	if (entry.kind !== 'frame-log' || !entry.payload.kept) return null;
	const [packed] = await captures.pieces({ caseId, id: entry.id });
	return packed && (await heavy.ask('logHash', packed)) === entry.payload.kept.sha256
		? null
		: 'The log that it names is not kept here: send the file first.';
}
