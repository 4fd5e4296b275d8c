import type { EntryDraft } from '../../case/entry';
import { services } from '../running';

/** Photos that an entry speaks of. */
function photosIn(entry: EntryDraft): readonly { id: string; sha256: string }[] {
	if (entry.kind === 'inspection') return entry.payload.photos;
	return entry.kind === 'fitting' ? entry.payload.part.photos : [];
}

/**
 * What an entry says is kept beside it and is not, in a sentence; null where all of it is there, byte for byte. An entry that
 * names what does not exist would spoil every bundle of its case.
 */
export async function notKept(caseId: string, entry: EntryDraft): Promise<string | null> {
	const { photos, desk, heavy } = services();
	for (const { id, sha256 } of photosIn(entry)) {
		if ((await photos.hashOf(caseId, id)) !== sha256)
			return 'A photo that it names is not on this case: take it once more.';
	}
	if (entry.kind !== 'frame-log' || !entry.payload.kept) return null;
	const [packed] = await desk.captures.pieces({ caseId, id: entry.id });
	return packed && (await heavy.ask('logHash', packed)) === entry.payload.kept.sha256
		? null
		: 'The log that it names is not kept here: send the file first.';
}
