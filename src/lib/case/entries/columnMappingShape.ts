import { z } from 'zod';
import { CHANNEL, MOST_CHANNELS } from '../../core/live/columnMapping';

/** What the columns of a file are, as it is remembered for files with the same header. */
export const ColumnMappingShape = z.object({
	time: z.object({ column: z.number().int().min(0).max(999), factor: z.number().positive().nullable() }),
	channels: z
		.array(
			z.object({
				column: z.number().int().min(0).max(999),
				channel: z.string().regex(CHANNEL),
				factor: z.number()
			})
		)
		.min(1)
		.max(MOST_CHANNELS)
});
