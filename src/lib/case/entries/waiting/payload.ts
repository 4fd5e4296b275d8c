import { z } from 'zod';
import { Text } from '../fields';

export const WAITS_FOR = [
	'nothing',
	'a part',
	'a helper',
	'a dry road',
	'another workshop',
	'the customer'
] as const;

/** Where the vehicle stands and what keeps the work from going on. */
export const Waiting = z.object({
	what: z.enum(WAITS_FOR),
	/** Lift or place in the shop; empty = nowhere in particular. */
	lift: Text,
	note: Text
});
