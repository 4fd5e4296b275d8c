import { z } from 'zod';
import { Text, Words } from '../fields';

/** What came of one thing that the customer said. The first two leave it open. */
export const ANSWERS = ['shows-again', 'does-not-show', 'gone', 'explained'] as const;
export type ComplaintAnswer = (typeof ANSWERS)[number];

export const ComplaintAnswered = z
	.object({
		/** Which thing: what is felt by its id in the vocabulary, a symptom in words of its own, a lamp, or the complaint as a whole. */
		what: z.enum(['felt', 'symptom', 'lamp', 'words']),
		thing: Words,
		how: z.enum(ANSWERS),
		/** How it was tried: speed, road, load; or what explains it. */
		why: Text
	})
	.refine(({ how, why }) => how === 'shows-again' || why.trim() !== '', {
		path: ['why'],
		error: 'how it was tried, or what explains it'
	});
export type ComplaintAnswered = z.infer<typeof ComplaintAnswered>;
