import { z } from 'zod';
import { Address, Hex, Said, Text, Words } from './fields';

/** Payloads of what modules are told and taught, and of whether the shop can finish what it begins. */

const CalibrationId = z
	.string()
	.regex(/^[a-z-]+$/)
	.max(60);
const Short = z.string().max(200);
const Role = z.string().max(40);

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

/** A calibration that a lead lets go, with the reason. */
export const CalibrationWaived = z.object({
	calibration: CalibrationId,
	role: Role,
	name: Words,
	why: Words
});

/** A repair that was decided on before it was begun: whether this shop can finish it, and what it was chosen over. */
export const RepairPlanned = z.object({
	repair: z.string().max(40),
	place: z.string().max(40),
	title: Words,
	answer: z.enum(['yes', 'partly', 'sublet']),
	missing: z.array(z.object({ function: Short, words: Short, for: Short })).max(30),
	/** The other ways that were looked at, each with its expected minutes. */
	instead: z
		.array(z.object({ repair: z.string().max(40), title: Words, expectedMinutes: z.number().min(0) }))
		.max(20),
	expectedMinutes: z.number().min(0),
	/** Why this one. */
	because: Text
});
