import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Text, Words } from '../fields';
import { GRADES } from '../shapes';

export const Repair = z.object({
	title: Words,
	position: Position.nullable(),
	parts: z.array(z.object({ name: Words, number: Text, grade: z.enum(GRADES) })).max(30),
	temporary: z.boolean(),
	note: Text,
	/** Repair of the library and the place it was done at, where it was chosen from what is suspected. */
	does: z.object({ kind: z.string().max(40), place: z.string().max(40) }).optional()
});
