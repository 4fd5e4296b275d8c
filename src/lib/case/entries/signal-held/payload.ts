import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Words } from '../fields';
import { LibraryId } from '../shapes';

/** A signal of ours was put in place of a sensor, or taken off again. */
export const SignalHeld = z.object({
	position: Position,
	method: LibraryId,
	name: Words,
	on: z.boolean()
});
export type SignalHeld = z.infer<typeof SignalHeld>;
