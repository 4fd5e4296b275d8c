import { z } from 'zod';
import { Ulid, Words } from '../fields';

/** Something that was measured or looked at and counts no longer. */
export const Withdrawn = z.object({
	entryId: Ulid,
	/** What it was, as the thread calls it. */
	what: Words,
	because: Words
});
export type Withdrawn = z.infer<typeof Withdrawn>;
