import { z } from 'zod';
import { Text, Words } from '../fields';
import { Photos } from '../shapes';

/** A sheet that was worked through while something was fitted. */
export const Fitting = z.object({
	sheet: z.string().max(40),
	name: Words,
	/** Wheel or module; null = the vehicle. */
	place: z.string().max(40).nullable(),
	/** Cautions that were read and acknowledged, by name. */
	acknowledged: z.array(z.string().max(40)).min(1, 'Cautions come before the first step.').max(20),
	part: z.object({
		number: Text,
		/** Held against the vehicle's data. */
		fits: z.enum(['yes', 'no', 'not looked']),
		/** What was not in the box. */
		missing: z.array(Words).max(20),
		damage: Text,
		photos: Photos
	}),
	steps: z
		.array(
			z.object({
				id: z.string().max(40),
				words: Words,
				state: z.enum(['done', 'left-out', 'open']),
				/** What was measured or drawn, the last stage of a torque in N·m. */
				value: z.number().min(-1e6).max(1e6).nullable(),
				unit: z.string().max(12),
				/** Of a torque: what the maker asks for in N·m, and where that stands; null = nobody looked it up. */
				asked: z.number().min(0).max(1e4).nullable().optional(),
				source: Text.optional(),
				/** Null where there is nothing to hold it against. */
				within: z.boolean().nullable(),
				/** Of clips: how many of how many; of what was left out: why. */
				note: Text
			})
		)
		.min(1)
		.max(60)
});
export type Fitting = z.infer<typeof Fitting>;
