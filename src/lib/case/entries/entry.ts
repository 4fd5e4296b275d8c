import { z } from 'zod';
import { ENTRY_KINDS, PAYLOADS, type EntryKind, type PayloadOf } from './registry';
import { ENTRY_VERSION } from './entryVersion';
import { Ulid, Words } from './fields';

/**
 * One piece of evidence on a case's thread. An entry is written once and never changed: a correction is a new entry that
 * supersedes an old one and says why. Everything Jaldi says about a case is computed from these. What is particular to a
 * kind stands in its folder under `entries/`.
 */

export { ENTRY_KINDS, ENTRY_VERSION, PAYLOADS };
export type { EntryKind, PayloadOf };

interface Envelope {
	/** Made by whoever wrote the entry, so that sending it twice stores it once. */
	id: string;
	caseId: string;
	version: typeof ENTRY_VERSION;
	observedAt: string;
	supersedes: { entryId: string; why: string } | null;
}

/** What a client sends. */
export type EntryDraft = { [K in EntryKind]: Envelope & { kind: K; payload: PayloadOf<K> } }[EntryKind];

const envelope = {
	id: Ulid,
	caseId: z.string().min(1),
	version: z.literal(ENTRY_VERSION),
	observedAt: z.iso.datetime(),
	supersedes: z.object({ entryId: Ulid, why: Words }).nullable()
};
const [first, ...others] = ENTRY_KINDS.map((kind) =>
	z.object({ ...envelope, kind: z.literal(kind), payload: PAYLOADS[kind] as z.ZodType })
);
if (!first) throw new Error('there is no kind of entry');
/** Every shape that an entry can have, by its kind. */
export const EntryDraft = z.discriminatedUnion('kind', [
	first,
	...others
]) as unknown as z.ZodType<EntryDraft>;

/** What the server adds when it takes an entry onto the thread. */
export interface Stamp {
	/** Place on the thread, from 1. */
	seq: number;
	authorId: string;
	authorName: string;
	receivedAt: string;
	/** Hash of the entry before; of the first entry, {@link FIRST_PREVIOUS}. */
	previousHash: string;
	hash: string;
}

/**
 * An entry that this version cannot read: of a kind, a version or a shape that it does not know. It stays on the thread at its
 * place, is shown as such, and says nothing to any projection.
 */
export interface UnknownDraft extends Omit<Envelope, 'version'> {
	kind: 'unknown';
	version: number;
	payload: { kind: string; why: string };
}

export type Entry = (EntryDraft | UnknownDraft) & Stamp;
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
