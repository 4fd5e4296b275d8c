import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Text, Words } from '../fields';
import { says } from '../shapes';

export const HARNESS_FAULTS = ['open', 'short', 'resistance'] as const;

export const HarnessSearch = z.object({
	position: Position,
	wire: z.enum(['feed', 'signal']),
	fault: z.enum(HARNESS_FAULTS),
	/** Plugs and modules that were open before. */
	exposed: z.array(Text).max(30),
	readings: z
		.array(
			z.object({
				place: z.string().max(60),
				words: Words,
				text: Text,
				reads: z.enum(['good', 'bad']),
				minutes: z.number().min(0)
			})
		)
		.max(60),
	/** The last good place and the first bad one, in words. */
	between: z.tuple([Words, Words]),
	found: z.boolean(),
	contradiction: Text.nullable(),
	...says
});
export type HarnessSearch = z.infer<typeof HarnessSearch>;
