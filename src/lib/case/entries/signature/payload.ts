import { z } from 'zod';
import { Words } from '../fields';

export const Signature = z.object({
	statement: Words,
	verdict: Words,
	/** Whether all was proven, or something let go by name; absent in signatures from before it was kept. */
	outcome: z.enum(['proven', 'released']).optional()
});
