import { z } from 'zod';

/** What the columns of a file are, as it is remembered for files with the same header. */
export const ColumnMappingShape = z.object({
	time: z.object({ column: z.number().int().min(0).max(999), factor: z.number().positive().nullable() }),
	channels: z
		.array(
			z.object({
				column: z.number().int().min(0).max(999),
				channel: z.string().regex(/^[a-z0-9][a-z0-9_]{0,59}$/),
				factor: z.number()
			})
		)
		.min(1)
		.max(64)
});
