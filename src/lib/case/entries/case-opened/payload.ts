import { z } from 'zod';
import { Id, Text, Words } from '../fields';

export const VehicleFacts = z.object({
	/** Id of the vehicle in the shop's list. */
	vehicleId: Id,
	typeId: Id,
	name: Words,
	plate: Text,
	/** The signed case that this one is a comeback of, and the hash of its last entry. */
	comebackOf: z.object({ caseId: Id, number: z.string().max(40), lastHash: z.string().length(64) }).optional()
});
