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
		.max(24)
});
export type TyresFitted = z.infer<typeof TyresFitted>;
