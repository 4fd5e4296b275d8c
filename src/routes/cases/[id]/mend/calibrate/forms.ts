import { z } from 'zod';
import { entrySchema } from '$lib/server/cases/entryForms';

/** A calibration that was done without the link. */
export const ByHandForm = entrySchema({
	calibration: z.string().max(60),
	how: z.enum(['by-hand', 'sublet']),
	state: z.enum(['done', 'failed']),
	detail: z.string().trim().min(1, 'Say how it was done and what came of it: values, tool, who.').max(2000)
});

export const WaiveForm = entrySchema({
	calibration: z.string().max(60),
	reason: z.string().trim().min(1, 'Say why it may be left out: it is printed on the report.').max(2000)
});
