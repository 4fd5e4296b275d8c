import { z } from 'zod';
import repairsFile from './faults/repairs.json' with { type: 'json' };

/** What kind of place a fault sits at: `rear-left`, `brake`, `F14`, `G1`, `S7`, a plug `X20` of several wheels, or the vehicle as a whole. */
export const PLACES = ['corner', 'module', 'fuse', 'ground', 'splice', 'plug', 'vehicle'] as const;
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
	part: z.boolean(),
	/** What has to be got to. */
	access: z.array(z.enum(['lifted', 'wheel', 'module'])).default([]),
	/** Share that is back within a year on a vehicle that is new and dry. */
	comesBack: z.number().min(0).max(1).default(0.03),
	/** Good for a while, and to be done again for good. */
	temporary: z.boolean().default(false),
	/** Functions of the shop without which it may not be begun. */
	needs: z.array(z.string()).default([]),
	/** Modules it can be done on; all where none is named. */
	roles: z.array(z.string()).optional(),
	/** The repair that it does as well, and more: what cures by that is cured by this. */
	countsAs: z.string().optional(),
	/** Fault that it always leaves, until what it calls for is done. */
	leaves: z.string().optional(),
	/** What speaks for or against it. */
	why: z.string().default('')
});
export type Repair = z.infer<typeof Repair>;

/** What a person can do with tools in hand, right or wrong. */
export const repairs = new Map(
	z
		.array(Repair)
		.parse(repairsFile.repairs)
		.map((repair) => [repair.id, repair])
);

/** What is done about a module whose maker alone says how: all else about it is left to people qualified for it. */
export const MAKERS_PROCEDURE = 'makers-procedure';

/** The repair by which a repair is judged: its own, or the one that it includes. */
export const judgedAs = (kind: string): string => repairs.get(kind)?.countsAs ?? kind;
