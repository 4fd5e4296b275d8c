import { z } from 'zod';
import { Address, Hex, Said, Text, Words } from '../fields';
import { CalibrationId, Role, Short } from '../shapes';

export const CONDITION_STATES = ['met', 'not-met', 'said', 'unknown'] as const;

/** A calibration that was tried: through the link, by hand, or by another workshop. */
export const CalibrationTried = z.object({
	calibration: CalibrationId,
	role: Role,
	address: Address,
	name: Words,
	how: z.enum(['link', 'by-hand', 'sublet']),
	state: z.enum(['done', 'failed', 'interrupted']),
	values: z
		.array(
			z.object({
				identifier: Hex.max(16),
				name: Short,
				unit: Short,
				before: z.union([z.number(), Short]).nullable(),
				after: z.union([z.number(), Short]).nullable(),
				/** Whether it is within its limits; null = it has none. */
				within: z.boolean().nullable()
			})
		)
		.max(20),
	conditions: z
		.array(z.object({ id: Short, words: Said, state: z.enum(CONDITION_STATES), value: Text }))
		.max(30),
	/** What happened, in a sentence. */
	detail: Text
});
export type CalibrationTried = z.infer<typeof CalibrationTried>;
