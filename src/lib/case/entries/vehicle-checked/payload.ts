import { z } from 'zod';

export const VehicleChecked = z.object({
	vin: z.string().length(17),
	checkDigitFits: z.boolean(),
	odometerKm: z.number().min(0).max(5_000_000)
});
