import { z } from 'zod';
import sheetsFile from './fitting/sheets.json' with { type: 'json' };
import { faults } from './faults';
import { CAR_POSITIONS, type Position } from './positions';
import { repairs } from './repairs';
import type { VehicleType } from './vehicles';

/** How work is done and checked while it is done, as data: what to look for in the part, then step by step. */

/** Fault of the library that is left where this is not as it should be. */
const leaves = z
	.string()
	.refine((id) => faults.has(id), 'no such fault')
	.optional();
const step = {
	id: z.string().regex(/^[a-z-]+$/),
	words: z.string(),
	optional: z.boolean().default(false),
	leaves
};
const Step = z.discriminatedUnion('do', [
	z.object({ ...step, do: z.literal('tick') }),
	z.object({ ...step, do: z.literal('clips'), count: z.number().int().positive() }),
	/** In stages; between the first and the last it may be backed off, after the last turned on by an angle. */
	z.object({
		...step,
		do: z.literal('torque'),
		newtonMetres: z.array(z.number().positive()).min(1),
		backOffDeg: z.number().positive().optional(),
		angleDeg: z.number().positive().optional(),
		singleUse: z.boolean().default(false)
	}),
	z.object({ ...step, do: z.literal('measure'), unit: z.string(), low: z.number(), high: z.number() }),
	/** Wheel by wheel in the order of the vehicle's layout. */
	z.object({ ...step, do: z.literal('bleed') })
]);
export type FittingStep = z.infer<typeof Step>;

const cautionTexts = z.record(z.string(), z.string()).parse(sheetsFile.cautions);
const Sheet = z.object({
	id: z.string(),
	name: z.string(),
	repairs: z.array(z.string().refine((id) => repairs.has(id), 'no such repair')),
	at: z.enum(['corner', 'module', 'vehicle', 'any']),
	/** Each is acknowledged by name before the first step opens. */
	cautions: z.array(z.string().refine((id) => id in cautionTexts, 'no such caution')).min(1),
	part: z.object({
		name: z.string(),
		/** What must be in the box. */
		complete: z.array(z.tuple([z.string(), z.string()])),
		look: z.string(),
		/** Left by a part for another vehicle. */
		wrongLeaves: leaves
	}),
	steps: z.array(Step).min(1)
});
export type FittingSheet = z.infer<typeof Sheet>;

export const fittingSheets = new Map(
	z
		.array(Sheet)
		.parse(sheetsFile.sheets)
		.map((sheet) => [sheet.id, sheet])
);
export const fittingCaution = (id: string): string => cautionTexts[id] ?? '';

/** The sheet for a repair of the library; null where there is none. */
export const sheetFor = (repair: string): FittingSheet | null =>
	[...fittingSheets.values()].find(({ repairs: of }) => of.includes(repair)) ?? null;

/**
 * Wheels in the order in which they are bled: the one farthest from the unit first. The unit is taken to sit front left
 * where nobody has said otherwise; of a trailer, axle by axle from behind.
 */
export function bleedOrder(type: VehicleType): Position[] {
	const farthestFirst: Position[] = ['rear-right', 'rear-left', 'front-right', 'front-left'];
	const own = type.wheels.map(({ position }) => position);
	if (own.every((position) => (CAR_POSITIONS as readonly Position[]).includes(position)))
		return farthestFirst.filter((position) => own.includes(position));
	return [...own].reverse();
}
