import { z } from 'zod';
import { LAMPS } from '../../../../../library/positions';

export const LampCheck = z.object({
	lamps: z
		.array(z.object({ lamp: z.enum(LAMPS), result: z.enum(['lit and went out', 'stays on', 'never lit']) }))
		.min(1)
		.max(LAMPS.length)
});
