import { z } from 'zod';
import { RELEASE_SUBJECTS } from '$lib/case/progress/standingItems';
import { entrySchema } from '$lib/server/cases/entryForms';

export const ReleaseForm = entrySchema({
	subject: z.enum(RELEASE_SUBJECTS),
	of: z.string().min(1).max(100),
	words: z.string().max(2000),
	reason: z.string().trim().min(1, 'Why may it stand?').max(1000)
});

export const UnprovenForm = entrySchema({
	statement: z
		.string()
		.trim()
		.min(10, 'Why is it closed unproven? A sentence that others understand.')
		.max(500),
	/** Hash of the last entry that the lead has looked at. */
	head: z.string().length(64)
});

export const SignForm = entrySchema({
	statement: z.string().trim().min(1, 'What do you sign?').max(500),
	/** Hash of the last entry that the lead has looked at. */
	head: z.string().length(64)
});
