import { z } from 'zod';
import { parseJsonText } from '../core/jsonText';
import { fail, ok, type Result } from '../core/result';
import { EntryDraft, type Entry } from './entry';
import { FIRST_PREVIOUS } from './hashChain';

/** A case as a file: its thread. Entries may be as they stand on a thread, or as somebody wrote them. */
const CaseFile = z.object({
	format: z.literal('jaldi-case'),
	version: z.literal(1),
	entries: z.array(z.unknown()).min(1).max(100_000)
});

export const CASE_FORMAT = 'jaldi-case';

/** Reads a case's thread from text. The error names the entry and what was expected. */
export function readCaseFile(text: string): Result<Entry[]> {
	const json = parseJsonText(text);
	if (!json.ok) return json;
	const file = CaseFile.safeParse(json.value);
	if (!file.success) {
		const [issue] = file.error.issues;
		const where = issue?.path.join('.') || 'the top';
		return fail(
			`at ${where}: ${issue?.message}; expected { "format": "jaldi-case", "version": 1, "entries": [ … ] }`
		);
	}
	const entries: Entry[] = [];
	for (const [i, one] of file.data.entries.entries()) {
		const parsed = EntryDraft.safeParse(one);
		if (!parsed.success) {
			const [issue] = parsed.error.issues;
			return fail(`entry ${i + 1}, ${issue?.path.join('.') || 'itself'}: ${issue?.message}`);
		}
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
