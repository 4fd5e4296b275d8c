import { z } from 'zod';
import { Address, Said, Words } from '../fields';
import { MOST } from '../shapes';

export const CodesCleared = z.object({
	modules: z
		.array(
			z.object({
				address: Address,
				name: Said,
				outcome: z.enum(['cleared', 'refused', 'no-answer', 'unknown']),
				detail: Said.nullable()
			})
		)
		.max(MOST.modules),
	keyCycles: z.number().int().nullable(),
	/** Cleared with another tool, on the word of whoever did it. */
	otherTool: z.object({ tool: Words }).optional()
});
