import { z } from 'zod';
import { MOST_TOTAL } from '../estimate/payload';
import { Text, Ulid, Words } from '../fields';

/** How the answer came. */
export const ANSWERED_HOW = ['here', 'by phone', 'by message', 'by e-mail', 'on paper'] as const;

/** What the customer said to an estimate. */
export const EstimateAnswered = z.object({
	/** The entry of the estimate. */
	estimate: Ulid,
	agrees: z.boolean(),
	/** What they agreed to at most, with tax, in smallest units of its currency; null = what was estimated. */
	upTo: z.int().min(0).max(MOST_TOTAL).nullable(),
	/** Their part in it (“the owner”, “the fleet office”), no name: names stand with the customer. */
	who: Words.max(80),
	how: z.enum(ANSWERED_HOW),
	words: Text
});
