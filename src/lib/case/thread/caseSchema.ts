import { z } from 'zod';
import { CASE_FORMAT } from './caseFile';
import { EntryDraft } from '../entries/entry';

/** What an entry carries besides what its writer made: see {@link Stamp}. */
const Stamp = z.object({
	seq: z.number().int().min(1),
	authorId: z.string(),
	authorName: z.string(),
	receivedAt: z.iso.datetime(),
	previousHash: z.string().length(64),
	hash: z.string().length(64)
});

/** The published shape of `case.json`, as JSON Schema (draft 2020-12). */
export function caseSchemaText(): string {
	const schema = z.toJSONSchema(
		z.object({
			format: z.literal(CASE_FORMAT),
			version: z.literal(1),
			entries: z.array(z.intersection(EntryDraft, Stamp)).min(1)
		}),
		{ io: 'input', unrepresentable: 'any' }
	);
	return `${JSON.stringify(schema, null, '\t')}\n`;
}
