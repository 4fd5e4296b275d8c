import { z } from 'zod';
import { Text, Words } from '../fields';

const Seconds = z.number().min(0).max(100_000);

/** A code that a lamp showed, tapped along by a person: the flashes as they came, and what was made of them. */
export const LampRead = z.object({
	/** Which lamp. */
	lamp: Words,
	flashes: z
		.array(z.object({ onS: Seconds, offS: Seconds.nullable() }))
		.min(1)
		.max(2000),
	groups: z.array(z.number().int().min(1).max(99)).min(1).max(20),
	repeats: z.number().int().min(1),
	confidence: z.number().min(0).max(1),
	/** Table that it was read by; null = the number alone. */
	table: z.string().max(40).nullable(),
	/** What it says by that table, in words. */
	meaning: Text
});
export type LampRead = z.infer<typeof LampRead>;
