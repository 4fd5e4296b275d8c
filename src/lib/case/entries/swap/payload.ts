import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { SWAP_OUTCOMES, SWAPPED } from '../../../../../library/reason/swaps';

/** The wheel that is suspected; of a module, a wheel that it reads. */
const position = Position;
const parts = {
	what: z.enum(SWAPPED).exclude(['module']),
	position,
	/** The wheel that its part went to. */
	with: Position
};
const module = { what: z.literal('module'), position, with: z.null() };
const swapped = { state: z.literal('swapped'), outcome: z.null() };
const back = z.literal('back');

/**
 * Parts that change places to see whether the fault goes with them: written when they are swapped, and again when they are back, with
 * what was seen meanwhile (null where nothing was told). A fault of a module that is not there can go nowhere.
 */
export const Swap = z.union([
	z.object({ ...parts, ...swapped }),
	z.object({ ...parts, state: back, outcome: z.enum(SWAP_OUTCOMES).nullable() }),
	z.object({ ...module, ...swapped }),
	z.object({ ...module, state: back, outcome: z.enum(SWAP_OUTCOMES).exclude(['moved']).nullable() })
]);
export type Swap = z.infer<typeof Swap>;
