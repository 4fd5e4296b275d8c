import { z } from 'zod';

export const KeyCycled = z.object({
	confirmedBy: z.enum(['vehicle', 'person']),
	countBefore: z.number().int().nullable(),
	countAfter: z.number().int().nullable()
});
