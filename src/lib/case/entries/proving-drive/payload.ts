import { z } from 'zod';
import { Text, Ulid } from '../fields';
import { DrivenBands, ROADS } from '../shapes';

export const ProvingDrive = z.object({
	distanceKm: z.number().positive('A drive has a distance.').max(2000),
	topSpeedKmh: z.number().positive().max(300),
	stops: z.number().int().min(0).max(1000),
	road: z.enum(ROADS),
	driver: Text,
	note: Text,
	/** Recordings that its distance was read from: the same kilometres count once. */
	recordings: z.array(Ulid).max(50).optional(),
	/** Its distance by speed and turn, where that was read. */
	bands: DrivenBands.optional(),
	/** Where it was not: kilometres of it that were driven as what comes and goes used to show, by the driver's word. */
	asShownKm: z.number().min(0).max(2000).optional()
});
