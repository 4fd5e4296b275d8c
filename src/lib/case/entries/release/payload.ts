import { z } from 'zod';
import { Words } from '../fields';

/** Something that stands between a case and its signature, released by a lead, by name. */
export const Release = z.object({
	subject: z.enum(['complaint', 'finding', 'vehicle-number']),
	/** What of that subject, as `standingItems` names it. */
	of: z.string().min(1).max(100),
	/** What it was, in words. */
	words: Words,
	why: Words
});
