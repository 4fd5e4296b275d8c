import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { SWAP_OUTCOMES, SWAPPED } from '../../../../../library/reason/swaps';

/**
 * Parts that change places to see whether the fault goes with them: written when they are swapped, and again when they are back, with
 * what was seen meanwhile.
 */
export const Swap = z.object({
	what: z.enum(SWAPPED),
	/** The wheel that is suspected; of a module, a wheel that it reads. */
	position: Position,
	/** The wheel that its part went to; null where a part known to be good came instead. */
	with: Position.nullable(),
	state: z.enum(['swapped', 'back']),
	/** What was seen meanwhile; null while it is swapped, or where nothing was told. */
	outcome: z.enum(SWAP_OUTCOMES).nullable()
});
export type Swap = z.infer<typeof Swap>;
