import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Text, Words } from '../fields';

export const TyresFitted = z.object({
	tyres: z
		.array(
			z.object({
				position: Position,
				size: Words,
				brand: Text,
				treadMm: z.number().min(0).max(30).nullable(),
				pressureKpa: z.number().min(0).max(1200).nullable()
			})
		)
		.min(1)
		.max(24),
	/** What the placard or the handbook says belongs on each axle; absent where nobody looked. */
	placard: z
		.array(z.object({ axle: z.number().int().min(1).max(6), size: Words }))
		.max(6)
		.optional()
});
export type TyresFitted = z.infer<typeof TyresFitted>;
