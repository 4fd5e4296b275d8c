import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { readingTold } from '$lib/case/codes/otherTool';
import { LONGEST_KEPT_TEXT } from '$lib/case/thread/keptLimits';
import { happenedAfter, ofKind } from '$lib/case/thread/thread';
import { caseHere, loadCase } from '$lib/server/cases/access';
import { entryAction, entryFormFor, entrySchema } from '$lib/server/cases/entryForms';

const SAID = ['codes', 'no-codes', 'no-answer', 'not-asked'] as const;
const ReadingForm = entrySchema({
	tool: z.string().trim().min(1, 'With what was it read?').max(120),
	text: z.string().max(LONGEST_KEPT_TEXT),
	testsRan: z.boolean(),
	modules: z
		.array(z.object({ role: z.string().max(40), said: z.enum(SAID), codes: z.string().max(4000) }))
		.max(40)
});

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	if (!type || type.tells === 'lamp') redirect(303, `/cases/${params.id}/read`);
	const tool = ofKind(view.entries, 'network-scan').findLast(({ payload }) => payload.otherTool)?.payload
		.otherTool?.tool;
	return {
		modules: type.modules.map(({ role, name }) => ({ role, name })),
		sinceClear: view.lastClear !== null,
		readSinceClear:
			view.lastScan !== null &&
			view.lastClear !== null &&
			happenedAfter(view.entries, view.lastScan, view.lastClear),
		form: await entryFormFor(ReadingForm, {
			tool: tool ?? '',
			text: '',
			testsRan: false,
			modules: type.modules.map(({ role }) => ({ role, said: 'not-asked' as const, codes: '' }))
		})
	};
};

export const actions = {
	default: entryAction(
		ReadingForm,
		'network-scan',
		async (told, { params, locals }) => {
			const { type } = await loadCase(locals.services, params.id);
			if (!type) return 'Its modules are not described: describe the vehicle first.';
			const read = readingTold(told, type);
			return read.ok ? read.value : read.error;
		},
		'Saved as a reading, on your word.'
	)
};
