import { z } from 'zod';
import { parseJsonText } from '../../core/jsonText';
import { fail, ok, type Result } from '../../core/result';
import { EntryDraft, type Entry } from '../entries/entry';
import { Ulid } from '../entries/fields';
import { FIRST_PREVIOUS } from './hashChain';
import type { RawEntry } from './knownEntry';

/** A case as a file: its thread. Entries may be as they stand on a thread, or as somebody wrote them. */
const CaseFile = z.object({
	format: z.literal('jaldi-case'),
	version: z.literal(1),
	entries: z.array(z.unknown()).min(1).max(100_000)
});

export const CASE_FORMAT = 'jaldi-case';

function entriesIn(text: string): Result<unknown[]> {
	const json = parseJsonText(text);
	if (!json.ok) return json;
	const file = CaseFile.safeParse(json.value);
	if (file.success) return ok(file.data.entries);
	const [issue] = file.error.issues;
	const where = issue?.path.join('.') || 'the top';
	return fail(
		`at ${where}: ${issue?.message}; expected { "format": "jaldi-case", "version": 1, "entries": [ … ] }`
	);
}

const refusedEntry = (i: number, { issues: [issue] }: z.ZodError): { ok: false; error: string } =>
	fail(`entry ${i + 1}, ${issue?.path.join('.') || 'itself'}: ${issue?.message}`);

const Hash = z.string().regex(/^[0-9a-f]{64}$/);
/** An entry as it was stamped elsewhere; whether its payload can be read is asked later. */
const StampedEntry = z.object({
	id: Ulid,
	caseId: Ulid,
	kind: z.string().min(1).max(60),
	version: z.number().int().min(1),
	observedAt: z.iso.datetime(),
	supersedes: z.object({ entryId: Ulid, why: z.string().max(2000) }).nullable(),
	payload: z.unknown(),
	seq: z.number().int().min(1),
	authorId: z.string().min(1).max(64),
	authorName: z.string().min(1).max(120),
	receivedAt: z.iso.datetime(),
	previousHash: Hash,
	hash: Hash
});

/**
 * Reads a thread as another server wrote it, with its stamps and hashes. Kinds that this version does not know are let
 * through as they are. The error names the entry and what was expected.
 */
export function readStampedFile(text: string): Result<RawEntry[]> {
	const all = entriesIn(text);
	if (!all.ok) return all;
	const entries: RawEntry[] = [];
	for (const [i, one] of all.value.entries()) {
		const parsed = StampedEntry.safeParse(one);
		if (!parsed.success) return refusedEntry(i, parsed.error);
		entries.push({ ...parsed.data, payload: (one as RawEntry).payload });
	}
	return ok(entries);
}

/** Reads a case's thread from text. The error names the entry and what was expected. */
export function readCaseFile(text: string): Result<Entry[]> {
	const all = entriesIn(text);
	if (!all.ok) return all;
	const entries: Entry[] = [];
	for (const [i, one] of all.value.entries()) {
		const parsed = EntryDraft.safeParse(one);
		if (!parsed.success) return refusedEntry(i, parsed.error);
		const stamped = one as Partial<Entry>;
		entries.push({
			...parsed.data,
			// As it was hashed: reading it must not add or drop a key.
			payload: stamped.payload as never,
			seq: stamped.seq ?? i + 1,
			authorId: stamped.authorId ?? '',
			authorName: stamped.authorName ?? '',
			receivedAt: stamped.receivedAt ?? parsed.data.observedAt,
			previousHash: stamped.previousHash ?? FIRST_PREVIOUS,
			hash: stamped.hash ?? ''
		});
	}
	return ok(entries);
}

/** The thread of a case as a file's text. @param about whose case it is, where that goes along */
export const writeCaseFile = (entries: readonly Entry[], about?: object): string =>
	`${JSON.stringify({ format: CASE_FORMAT, version: 1, ...(about ? { case: about } : {}), entries }, null, '\t')}\n`;
