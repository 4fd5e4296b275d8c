import { z } from 'zod';
import { Said } from '../fields';

/** Who has the case. */
export const Assigned = z.object({
	/** Null = whoever is free first. */
	to: z
		.object({
			/** Their account. */
			id: z.string().min(1).max(60),
			name: Said
		})
		.nullable()
});
