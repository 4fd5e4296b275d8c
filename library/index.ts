import { z } from 'zod';
import identifiersFile from './identifiers.json' with { type: 'json' };

/** Shipped reference data, checked the moment it is loaded: a wrong file stops the build, not a technician. */

export { CAR_POSITIONS, POSITIONS, Position } from './positions';
export type { Conductor, Harness } from './harness';
export {
	linkTypes,
	vehicleTypes,
	type ModuleRole,
	type ModuleType,
	type SensorKind,
	type VehicleType,
	type WheelType
} from './vehicles';

const identifierBase = {
	id: z.string().regex(/^[0-9A-F]{4}$/),
	name: z.string(),
	bytes: z.number().int().positive(),
	/** Its one-byte number for periodic reading (service 2A): the low byte of its F2xx twin. */
	periodic: z
		.string()
		.regex(/^[0-9A-F]{2}$/)
		.optional()
};
const Identifier = z.discriminatedUnion('as', [
	z.object({ ...identifierBase, as: z.literal('text') }),
	z.object({
		...identifierBase,
		as: z.enum(['number', 'signed']),
		scale: z.number(),
		offset: z.number().optional(),
		unit: z.string(),
		decimals: z.number().int(),
		/** The raw value that stands for "not available". */
		invalid: z.string().optional()
	})
]);
export type Identifier = z.infer<typeof Identifier>;

export const identifiers = new Map(
	z
		.array(Identifier)
		.parse(identifiersFile.identifiers)
		.map((rule) => [rule.id, rule])
);
