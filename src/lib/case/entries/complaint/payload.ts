import { z } from 'zod';
import { Chosen, Words } from '../fields';

export const Complaint = z.object({
	words: Words,
	/** In words of one's own, beside what is chosen. */
	symptoms: z.array(Words).max(20),
	conditions: z.array(Words).max(20),
	/** Chosen from the vocabulary, by id: what is felt, and when it shows. Only these are evidence. */
	felt: z.array(Chosen).max(20).optional(),
	when: z.array(Chosen).max(20).optional(),
	/** At about what speed it shows, where it was told: it is proven above it. */
	atKmh: z.number().min(1).max(250).optional()
});
export type Complaint = z.infer<typeof Complaint>;
