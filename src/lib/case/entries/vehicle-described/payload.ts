import { z } from 'zod';
import { FullDescription } from '../../../../../library/vehicle/vehicleType';
import { Text } from '../fields';

export const VehicleDescribed = z.object({
	/** The vehicle as it is worked with from here on, in full: what comes later in the shop's list does not change it. */
	description: FullDescription,
	/** What was corrected or added, and how it is known. */
	because: Text
});
