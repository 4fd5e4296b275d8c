import { z } from 'zod';
import { Text, Words } from '../fields';
import { Short } from '../shapes';

/** A repair that was decided on before it was begun: whether this shop can finish it, and what it was chosen over. */
export const RepairPlanned = z.object({
	repair: z.string().max(40),
	place: z.string().max(40),
	title: Words,
	answer: z.enum(['yes', 'partly', 'sublet']),
	missing: z.array(z.object({ function: Short, words: Short, for: Short })).max(30),
	/** The other ways that were looked at, each with its expected minutes. */
	instead: z
		.array(z.object({ repair: z.string().max(40), title: Words, expectedMinutes: z.number().min(0) }))
		.max(20),
	expectedMinutes: z.number().min(0),
	/** Why this one. */
	because: Text
});
