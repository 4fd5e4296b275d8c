import { z } from 'zod';
import { EntryDraft, type Entry, type Stamp } from '../entries/entry';

/** An entry as it lies on disk or in a file, before anybody knows whether this version can read it. */
export interface RawEntry extends Stamp {
	id: string;
	caseId: string;
	kind: string;
	version: number;
	observedAt: string;
	supersedes: { entryId: string; why: string } | null;
	payload: unknown;
}

const LONGEST_WHY = 200;

/**
 * What is stored → what projections read. A kind, version or payload that this version does not know becomes an entry of
 * kind `unknown` at the same place, under the same hash; nothing of it reaches a projection.
 */
export function knownEntry(raw: RawEntry): Entry {
	const parsed = EntryDraft.safeParse(raw);
	// As it was hashed: reading it must not add or drop a key.
	if (parsed.success) return raw as Entry;
	const [issue] = parsed.error.issues;
	const where = issue?.path.map(String).join('.') ?? '';
	return {
		...raw,
		kind: 'unknown',
		supersedes: null,
		observedAt: isMoment(raw.observedAt) ? raw.observedAt : isMoment(raw.receivedAt) ? raw.receivedAt : NEVER,
		payload: { kind: raw.kind, why: `${where}: ${issue?.message ?? ''}`.slice(0, LONGEST_WHY) }
	};
}

const NEVER = '1970-01-01T00:00:00.000Z';
const isMoment = (text: string): boolean => z.iso.datetime().safeParse(text).success;
