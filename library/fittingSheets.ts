import { z } from 'zod';
import sheetsFile from './fitting/sheets.json' with { type: 'json' };
import { faults } from './faults';
import { motorBrakeAt } from './exposed';
import { CAR_POSITIONS, type Position } from './positions';
import { repairs } from './repairs';
import { Exposes } from './safety';
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
	/** Example values, in stages: the maker's are what counts. Between the first and the last it may be backed off, after the last turned on by an angle. */
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

const Sheet = z.object({
	id: z.string(),
	name: z.string(),
	repairs: z.array(z.string().refine((id) => repairs.has(id), 'no such repair')),
	at: z.enum(['corner', 'module', 'vehicle', 'fuse', 'any']),
	/** Each caution that follows is acknowledged by name before the first step opens. */
	exposes: Exposes,
	part: z.object({
		name: z.string(),
		/** What must be in the box, by an id of its own: its words, and what is left where it was not there. */
		complete: z.array(z.object({ id: z.string(), words: z.string(), leaves })),
		look: z.string(),
		/** Left by a part for another vehicle. */
		wrongLeaves: leaves
	}),
	/** Steps of other sheets that it is made of, in its own order; what those expose it exposes too. */
	takes: z.array(z.object({ sheet: z.string(), steps: z.array(z.string()).min(1) })).default([]),
	steps: z.array(Step)
});
export type FittingSheet = Omit<z.infer<typeof Sheet>, 'takes'>;
const file = z
	.object({
		sheets: z.array(Sheet),
		/** Last step of every sheet that exposes this. */
		closing: z.record(z.string(), Step),
		/** Around work on a brake that a motor clamps. */
		motorBrake: z.object({ first: Step, last: Step })
	})
	.parse(sheetsFile);

/** A sheet with the steps that it takes from others, and with what has to come last. Throws where a step would be lost. */
function whole({ takes, ...sheet }: z.infer<typeof Sheet>): FittingSheet {
	const of = (id: string) => {
		const found = file.sheets.find((one) => one.id === id);
		if (!found) throw new Error(`sheets.json: ${sheet.id} takes from "${id}", which is not there`);
		return found;
	};
	const steps = [
		...takes.flatMap((one) =>
			one.steps.map((id) => {
				const step = of(one.sheet).steps.find((each) => each.id === id);
				if (!step) throw new Error(`sheets.json: ${sheet.id}: ${one.sheet} has no step "${id}"`);
				return step;
			})
		),
		...sheet.steps
	];
	const sources = [...new Set(takes.map((one) => one.sheet))].map(of);
	const lost = sources.flatMap((one) => one.steps).find(({ id }) => !steps.some((step) => step.id === id));
	if (lost) throw new Error(`sheets.json: ${sheet.id} leaves out "${lost.id}"`);
	const exposes = [...new Set([...sheet.exposes, ...sources.flatMap((one) => one.exposes)])];
	const last = exposes.flatMap((id) => file.closing[id] ?? []);
	return { ...sheet, exposes, steps: [...steps, ...last] };
}

export const fittingSheets: ReadonlyMap<string, FittingSheet> = new Map(
	file.sheets.map((sheet) => [sheet.id, whole(sheet)])
);

/** The sheet for a repair of the library; null where there is none. */
export const sheetFor = (repair: string): FittingSheet | null =>
	[...fittingSheets.values()].find(({ repairs: of }) => of.includes(repair)) ?? null;

/** A sheet as it is worked through on this vehicle: a brake that a motor clamps is retracted first and let go last. */
export function sheetOn(sheet: FittingSheet, type: VehicleType | null, place: string | null): FittingSheet {
	const clamped =
		type && place && sheet.exposes.includes('brakes-apart') && motorBrakeAt(type, place) === 'yes';
	if (!clamped) return sheet;
	const { first, last } = file.motorBrake;
	return { ...sheet, steps: [first, ...sheet.steps, last] };
}

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
