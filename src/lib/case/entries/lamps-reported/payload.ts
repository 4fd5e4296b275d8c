import { z } from 'zod';
import { LAMPS } from '../../../../../library/positions';
import { Words } from '../fields';

export const LampsReported = z.object({
	lamps: z
		.array(
			z.object({
				lamp: z.enum(LAMPS),
				manner: z.enum(['steady', 'flashing']),
				when: Words
			})
		)
		.max(LAMPS.length)
});
