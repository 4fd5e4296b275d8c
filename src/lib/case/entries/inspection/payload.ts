import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { Text, Words } from '../fields';
import { LibraryId, Photos, says } from '../shapes';

export const InspectionDone = z.object({
	position: Position,
	inspection: LibraryId,
	name: Words,
	result: z.enum(['good', 'bad', 'unsure']),
	/** What was seen, by its id in the look's own list, and in words. */
	sights: z.array(LibraryId).max(12).optional(),
	found: z.array(Words).max(12),
	gapMm: z.number().min(0).max(20).nullable(),
	note: Text,
	photos: Photos,
	...says
});
export type InspectionDone = z.infer<typeof InspectionDone>;
