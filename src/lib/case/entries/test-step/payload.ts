import { z } from 'zod';
import { TEST_STATIONS } from '../../../../../library/reason/tests';
import { Text, Words } from '../fields';

export const STEP_WAYS = ['done', 'skipped', 'cannot', 'not-available'] as const;

const SignKey = z
	.string()
	.regex(/^[a-z][a-z0-9:-]*@[A-Za-z0-9-]+$/)
	.max(100);

const MOST_SEEN = 60;

export const TestStep = z.object({
	/** Test of the library by its id; null = a step of one's own. */
	test: z
		.string()
		.regex(/^[a-z][a-z0-9:-]*$/)
		.max(60)
		.nullable(),
	/** Wheel, module, fuse … that it is about. */
	place: z.string().max(40),
	name: Words,
	station: z.enum(TEST_STATIONS),
	from: z.enum(['suggested', 'procedure', 'own']),
	how: z.enum(STEP_WAYS),
	/** What was seen, by sign and place; empty where another entry tells it. */
	seen: z
		.record(SignKey, z.string().max(60))
		.refine((seen) => Object.keys(seen).length <= MOST_SEEN, 'One test does not show so much.'),
	/** Why it was set aside, or what else there is to say. */
	because: Text,
	/** By the timer that ran while the step was open; null = not timed. */
	minutes: z.number().min(0).max(1440).nullable()
});
export type TestStep = z.infer<typeof TestStep>;
