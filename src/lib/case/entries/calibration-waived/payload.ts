import { z } from 'zod';
import { Words } from '../fields';
import { CalibrationId, Role } from '../shapes';

/** A calibration that a lead lets go, with the reason. */
export const CalibrationWaived = z.object({
	calibration: CalibrationId,
	role: Role,
	name: Words,
	why: Words
});
