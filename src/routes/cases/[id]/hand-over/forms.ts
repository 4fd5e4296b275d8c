import { z } from 'zod';
import { entrySchema } from '$lib/server/cases/entryForms';

export const SignForm = entrySchema({
	statement: z.string().trim().min(1, 'What do you sign?').max(500),
	/** Hash of the last entry that the lead has looked at. */
	head: z.string().length(64)
});
