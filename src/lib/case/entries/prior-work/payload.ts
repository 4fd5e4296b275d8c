import { z } from 'zod';
import { Chosen, Text, Words } from '../fields';
import { GRADES } from '../shapes';

export const PriorWork = z.object({
	works: z
		.array(
			z.object({
				part: Words,
				/** What it was, chosen from the vocabulary by its id. */
				work: Chosen.optional(),
				when: Text,
				by: Text,
				grade: z.enum(GRADES)
			})
		)
		.max(30)
});
