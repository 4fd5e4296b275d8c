import { z } from 'zod';
import repairsFile from './faults/repairs.json' with { type: 'json' };

/** What kind of place a fault sits at: `rear-left`, `brake`, `F14`, `G1`, `S7`, or the vehicle as a whole. */
export const PLACES = ['corner', 'module', 'fuse', 'ground', 'splice', 'vehicle'] as const;
export type PlaceKind = (typeof PLACES)[number];

const Repair = z.object({
	id: z.string(),
	name: z.string(),
	at: z.enum([...PLACES, 'any']),
	/** Of work, besides getting there. */
	minutes: z.number().positive(),
	/** Of parts and material, in the shop's money. */
	price: z.number().nonnegative(),
	/** Whether a part is thrown away for a new one: the wrong one is money lost. */
	part: z.boolean()
});
export type Repair = z.infer<typeof Repair>;

/** What a person can do with tools in hand, right or wrong. */
export const repairs = new Map(
	z
		.array(Repair)
		.parse(repairsFile.repairs)
		.map((repair) => [repair.id, repair])
);
