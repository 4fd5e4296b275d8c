import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Text, Words } from '../fields';
import { LibraryId, says } from '../shapes';

export const Substitution = z.object({
	position: Position,
	method: LibraryId,
	name: Words,
	/** What was produced; null where it was no frequency. */
	hertz: z.number().min(0).max(20_000).nullable(),
	ohms: z.number().positive().nullable(),
	expectedKmh: z.number().min(0).max(400),
	seenKmh: z.object({ low: z.number().min(0).max(400), high: z.number().min(0).max(400) }).nullable(),
	outcome: z.enum(['follows', 'nothing', 'another-value', 'not-steady']),
	/** Plugs that were open with the key on: codes of their circuits are made by us. */
	opened: z.array(Text).max(10),
	...says
});
export type Substitution = z.infer<typeof Substitution>;
