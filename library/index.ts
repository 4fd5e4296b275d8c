import { z } from 'zod';
import identifiersFile from './identifiers.json' with { type: 'json' };
import { Position } from './positions';
import marlow from './vehicles/brindle-marlow-16.json' with { type: 'json' };
import heath from './vehicles/norvane-heath.json' with { type: 'json' };
import lichen from './vehicles/norvane-lichen.json' with { type: 'json' };
import pip from './vehicles/ottaro-pip.json' with { type: 'json' };
import skiff from './vehicles/velmora-skiff.json' with { type: 'json' };

/** Shipped reference data, checked the moment it is loaded: a wrong file stops the build, not a technician. */

export { POSITIONS, Position } from './positions';

const identifierBase = {
	id: z.string().regex(/^[0-9A-F]{4}$/),
	name: z.string(),
	bytes: z.number().int().positive()
};
const Identifier = z.discriminatedUnion('as', [
	z.object({ ...identifierBase, as: z.literal('text') }),
	z.object({
		...identifierBase,
		as: z.enum(['number', 'signed']),
		scale: z.number(),
		unit: z.string(),
		decimals: z.number().int(),
		/** The raw value that stands for "not available". */
		invalid: z.string().optional()
	})
]);
export type Identifier = z.infer<typeof Identifier>;

const Address = z.string().regex(/^[0-9A-F]{4}$/);
const MODULE_ROLES = ['gateway', 'brake', 'steering-angle', 'cluster'] as const;
const VehicleType = z.object({
	id: z.string(),
	maker: z.string(),
	model: z.string(),
	use: z.string(),
	gateway: Address,
	modules: z
		.array(
			z.object({
				role: z.enum(MODULE_ROLES),
				name: z.string(),
				address: Address,
				/** What it hangs on, each by the name the vehicle's diagrams give it, in order from the source to the module. */
				hangsOn: z.array(
					z.object({
						kind: z.enum(['fuse', 'ground', 'splice', 'segment']),
						name: z.string(),
						where: z.string()
					})
				)
			})
		)
		.min(1),
	wheels: z.array(
		z.object({
			position: Position,
			ringTeeth: z.number().int().positive(),
			circumferenceM: z.number().positive()
		})
	),
	senseResistorOhms: z.number().positive()
});
export type VehicleType = z.infer<typeof VehicleType>;

const byKey = <T, K extends keyof T>(items: T[], key: K) => new Map(items.map((item) => [item[key], item]));

export const identifiers = byKey(z.array(Identifier).parse(identifiersFile.identifiers), 'id');
export const vehicleTypes = byKey(z.array(VehicleType).parse([marlow, lichen, skiff, pip, heath]), 'id');
