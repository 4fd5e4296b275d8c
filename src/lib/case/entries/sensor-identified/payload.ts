import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { SENSOR_KINDS } from '../../../../../library/sensorKinds';

const MOST_ANSWERS = 30;

export const SensorIdentified = z.object({
	/** Null = all wheels of the vehicle. */
	position: Position.nullable(),
	family: z.enum(SENSOR_KINDS),
	/** Answer by question of the guided round; empty where the vehicle's data said so. */
	answers: z
		.record(z.string().max(60), z.string().max(60))
		.refine((answers) => Object.keys(answers).length <= MOST_ANSWERS, 'That is more than was asked.'),
	probability: z.number().min(0).max(1)
});
export type SensorIdentified = z.infer<typeof SensorIdentified>;
