import { z } from 'zod';
import { GRADES } from '$lib/case/entries/shapes';
import { entrySchema } from '$lib/server/cases/entryForms';

export const RepairForm = entrySchema({
	title: z.string().trim().min(1, 'What was done?').max(200),
	position: z.string(),
	parts: z.array(
		z.object({
			name: z.string().trim().min(1, 'Which part?').max(200),
			number: z.string().trim().max(100),
			grade: z.enum(GRADES)
		})
	),
	temporary: z.boolean(),
	note: z.string().trim().max(2000),
	/** Repair of the library and its place, where it was chosen on Reason: `clean-encoder@rear-left`. */
	does: z.string().max(90)
});

export const NoteForm = entrySchema({ text: z.string().trim().min(1, 'Write at least a word.').max(2000) });
