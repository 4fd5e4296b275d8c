import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Chosen, Text, Words } from '../fields';
import { GRADES } from '../shapes';

/** How long ago. */
export const AGO = ['days', 'weeks', 'months', 'years'] as const;
export const FITTERS = ['a workshop', 'somebody else'] as const;

const OneWork = z.object({
	part: Words,
	/** What it was, chosen from the vocabulary by its id. */
	work: Chosen.optional(),
	when: Text,
	by: Text,
	grade: z.enum(GRADES),
	/** Absent in those from before it was asked, and where nobody knows; so are the following. */
	position: Position.nullable().optional(),
	ago: z.enum(AGO).optional(),
	fitter: z.enum(FITTERS).optional(),
	/** The part, or a bill for it, was seen; false = only told. */
	seen: z.boolean().optional(),
	/** Whether the fault was there afterwards as before. */
	stayed: z.boolean().optional()
});

export const PriorWork = z.object({ works: z.array(OneWork).max(30) });
export type OneWork = z.infer<typeof OneWork>;
