import { z } from 'zod';
import { Text } from '../fields';

/** When the customer was told that the vehicle is ready; neither a moment nor words = nothing is promised any more. */
export const Promised = z.object({
	/** The moment; null = the words name none. */
	due: z.iso.datetime().nullable(),
	/** As it was said: "Friday at noon", "when the part is here". */
	words: Text
});
