import { z } from 'zod';
import { Words } from '../fields';

export const Signature = z.object({
	statement: Words,
	verdict: Words,
	/**
	 * Whether all was proven, something let go by name, or the case closed with things open and `statement` saying why; absent in
	 * signatures from before it was kept.
	 */
	outcome: z.enum(['proven', 'released', 'unproven']).optional(),
	/** What stood open when it was closed unproven. */
	left: z.array(Words).max(200).optional()
});
