import { z } from 'zod';
import { BROKEN_CHARACTER, Text } from '../fields';
import { LONGEST_KEPT_TEXT } from '../../thread/keptLimits';
import { ToldAnyCode } from '../codeShapes';

/** Codes that somebody told us: typed from the decoder, or found in a text and confirmed by a person. */
export const CodesReported = z.object({
	origin: z.enum(['typed', 'pasted']),
	/** What it was: a file's name, "print-out of another garage". */
	sourceName: Text,
	/** The text as it came, whole. */
	text: z
		.string()
		.max(LONGEST_KEPT_TEXT)
		.refine((text) => !BROKEN_CHARACTER.test(text), 'It contains a broken character.'),
	modules: z
		.array(
			z.object({
				name: Text.nullable(),
				codes: z
					.array(
						z.object({
							code: ToldAnyCode,
							spelling: Text,
							line: z.number().int().positive(),
							/** What the text says of its state. */
							words: z.array(Text).max(20),
							told: Text
						})
					)
					.max(500),
				values: z
					.array(
						z.object({
							name: Text,
							value: z.number(),
							unit: Text,
							line: z.number().int().positive(),
							/** Which of the codes it stood with. */
							ofCode: z.number().int().min(0).nullable()
						})
					)
					.max(500)
			})
		)
		.min(1)
		.max(100)
});
