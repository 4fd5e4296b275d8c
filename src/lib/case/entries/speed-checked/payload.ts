import { z } from 'zod';
import { Position } from '../../../../../library/positions';

export const SPEED_SOURCES = ['satellites', 'roller'] as const;

const Kmh = z.number().min(0).max(300);

/** Slower than this a wheel's own rounding is too much of it. */
export const LEAST_TRUE_KMH = 15;

/** What each wheel told at a steady speed that is known from elsewhere. */
export const SpeedChecked = z.object({
	by: z.enum(SPEED_SOURCES),
	trueKmh: Kmh.min(LEAST_TRUE_KMH, `From ${LEAST_TRUE_KMH} km/h on it says something.`),
	wheels: z
		.array(z.object({ position: Position, kmh: Kmh }))
		.min(1)
		.max(12)
});
export type SpeedChecked = z.infer<typeof SpeedChecked>;
