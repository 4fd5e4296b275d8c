import { z } from 'zod';
import { inOrder } from '../src/lib/core/calibrate/inOrder';
import calibrationsFile from './calibrate/calibrations.json' with { type: 'json' };
import { identifiers } from './index';
import { repairs } from './repairs';
import { Exposes } from './safety';
import { ModuleRole, type ModuleType, type VehicleType } from './vehicles';

/**
 * What a module has to be told or taught after certain work, as data: what calls for it, in which order, under which
 * conditions, how it is done and what must have come of it. The maker's procedure wins over all of it.
 */

const IdentifierId = z.string().refine((id) => identifiers.has(id), 'no such identifier');
const Dtc = z.string().regex(/^[0-9A-F]{6}$/);
const Range = z.tuple([z.number(), z.number()]);

const ConditionRule = z.discriminatedUnion('how', [
	/** Only a person can say. */
	z.object({ id: z.string(), words: z.string(), how: z.literal('asked') }),
	/** Read from the module itself, several times: every reading within, and none far from the first. */
	z.object({
		id: z.string(),
		words: z.string(),
		how: z.literal('read'),
		identifier: IdentifierId,
		at: z.literal('own'),
		low: z.number().nullable(),
		high: z.number().nullable(),
		mostChange: z.number().nullable()
	}),
	/** No code of an electrical kind stands in the module by its last reading. */
	z.object({ id: z.string(), words: z.string(), how: z.literal('no-codes') })
]);

const ShopFunction = z.object({
	id: z.string(),
	words: z.string(),
	/** Without it the work may not be begun; otherwise it can be done elsewhere afterwards. */
	before: z.boolean()
});
export type ShopFunction = z.infer<typeof ShopFunction>;

const Phase = z.object({
	id: z.string(),
	words: z.string(),
	speedKmh: Range,
	steeringDeg: Range,
	forS: z.number().positive(),
	/** Only counts once all others are done. */
	last: z.boolean().default(false)
});

const Way = z.discriminatedUnion('kind', [
	/** A routine of the module, by its number; given up after so many seconds. */
	z.object({ kind: z.literal('routine'), routine: z.string(), mostS: z.number().positive() }),
	z.object({ kind: z.literal('write'), identifiers: z.array(IdentifierId).min(1) }),
	z.object({ kind: z.literal('drive'), routine: z.string(), phases: z.array(Phase).min(1) }),
	/** No link does it: written down by hand. */
	z.object({ kind: z.literal('hand') })
]);

const Calibration = z.object({
	id: z.string().regex(/^[a-z-]+$/),
	name: z.string(),
	does: z.string(),
	roles: z.array(ModuleRole).min(1),
	way: Way,
	/** What must have come of it: a zero that was learned, or what it reads now. */
	values: z.array(
		z.object({
			identifier: IdentifierId,
			low: z.number(),
			high: z.number(),
			of: z.enum(['zero', 'now']),
			/** What a value outside is: a finding to be put right, and nothing to be taught away. */
			beyond: z.string().optional()
		})
	),
	conditions: z.array(z.string()),
	/** Those that come first where they are due too. */
	after: z.array(z.string()),
	/** What a shop needs for it. */
	needs: z.array(z.string()),
	minutes: z.number().positive(),
	/** Codes that stand until it is done, and are gone then. */
	restores: z.array(Dtc),
	exposes: Exposes
});
export type Calibration = z.infer<typeof Calibration>;

const Rule = z.object({
	/** Repairs of the library … */
	repairs: z.array(z.string().refine((id) => repairs.has(id), 'no such repair')).default([]),
	/** … at a module of these roles; absent = anywhere. */
	roles: z.array(ModuleRole).optional(),
	/** Or what a repair in free words tells of. */
	words: z.string().optional(),
	due: z.array(z.string()).min(1),
	because: z.string()
});
export type CalibrationRule = Omit<z.infer<typeof Rule>, 'words'> & { words: RegExp | null };

const file = z
	.object({
		conditions: z.array(ConditionRule),
		functions: z.array(ShopFunction),
		calibrations: z.array(Calibration),
		rules: z.array(Rule),
		byHand: z.array(z.object({ repair: z.string(), calibrations: z.array(z.string()) }))
	})
	.parse(calibrationsFile);

export const calibrationConditions = new Map(file.conditions.map((one) => [one.id, one]));
export const shopFunctions = new Map(file.functions.map((one) => [one.id, one]));
export const calibrations = new Map(file.calibrations.map((one) => [one.id, one]));
export const calibrationRules: CalibrationRule[] = file.rules.map((rule) => ({
	...rule,
	words: rule.words === undefined ? null : new RegExp(rule.words, 'i')
}));
/** Repairs of the library that are calibrations done by hand, and which. */
export const doneByHand = new Map(file.byHand.map(({ repair, calibrations: done }) => [repair, done]));

/** Every name that one part of the file uses must stand in another; and an order must exist. */
const broken = [
	...file.calibrations.flatMap(({ id, conditions, after, needs }) => [
		...conditions.filter((one) => !calibrationConditions.has(one)).map((one) => `${id}: condition ${one}`),
		...after.filter((one) => !calibrations.has(one)).map((one) => `${id}: after ${one}`),
		...needs.filter((one) => !shopFunctions.has(one)).map((one) => `${id}: function ${one}`)
	]),
	...[...file.rules, ...file.byHand.map(({ calibrations: due }) => ({ due }))].flatMap(({ due }) =>
		due.filter((one) => !calibrations.has(one)).map((one) => `rule: calibration ${one}`)
	)
];
if (broken.length > 0) throw new Error(`calibrations.json names what is not there: ${broken.join('; ')}`);
const ordered = inOrder(file.calibrations);
if (!ordered.ok) throw new Error(`calibrations.json: ${ordered.error}`);

/** Ids of all calibrations, each after those that it waits for. */
export const calibrationOrder = ordered.value;

/** A calibration of one module of a vehicle: `steering-zero@steering-angle`. */
export interface PlacedCalibration {
	id: string;
	calibration: Calibration;
	module: ModuleType;
}

/** Where a calibration is done on a vehicle; none where it has no such module, or is older than all of this. */
export const placesOf = (calibration: Calibration, type: VehicleType): PlacedCalibration[] =>
	(type.tells === 'link' ? type.modules : [])
		.filter(({ role }) => calibration.roles.includes(role))
		.map((module) => ({ id: `${calibration.id}@${module.role}`, calibration, module }));

/** What this vehicle's brake control is coded with, by the vehicle's own data. */
export function codingOf(type: VehicleType): Record<string, number | string> {
	const first = type.wheels[0];
	const VARIANT_CHARACTERS = 8;
	return {
		D150: (first?.circumferenceM ?? 2) * 1000,
		D151: first?.ringTeeth ?? 48,
		D152: type.id.slice(-VARIANT_CHARACTERS)
	};
}
