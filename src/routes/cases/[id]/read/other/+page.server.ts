import { fail, redirect } from '@sveltejs/kit';
import { ulid } from 'ulid';
import { z } from 'zod';
import { readingTold } from '$lib/case/codes/otherTool';
import { Photos } from '$lib/case/entries/shapes';
import { LONGEST_KEPT_TEXT } from '$lib/case/thread/keptLimits';
import { happenedAfter, ofKind } from '$lib/case/thread/thread';
import { Ulid } from '$lib/case/entries/fields';
import { upperFirst } from '$lib/case/words';
import { describeVehicle } from '$lib/server/cases/describeVehicle';
import { descriptionOf, ModuleRole } from '$library/vehicle/vehicleType';
import { withRoles } from '$library/vehicle/withModules';
import { caseHere, loadCase, memberHere } from '$lib/server/cases/access';
import { entryAction, entryFormFor, entrySchema } from '$lib/server/cases/entryForms';

const SAID = ['codes', 'no-codes', 'no-answer', 'not-asked'] as const;
const ReadingForm = entrySchema({
	tool: z.string().trim().min(1, 'With what was it read?').max(120),
	text: z.string().max(LONGEST_KEPT_TEXT),
	testsRan: z.boolean(),
	photos: Photos,
	modules: z.array(z.object({ role: ModuleRole, said: z.enum(SAID), codes: z.string().max(4000) })).max(40)
});

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	if (!type || type.tells === 'lamp') redirect(303, `/cases/${params.id}/read`);
	const tool = ofKind(view.entries, 'network-scan').findLast(({ payload }) => payload.otherTool)?.payload
		.otherTool?.tool;
	return {
		modules: type.modules.map(({ role, name }) => ({ role, name })),
		growId: ulid(),
		sinceClear: view.lastClear !== null,
		readSinceClear:
			view.lastScan !== null &&
			view.lastClear !== null &&
			happenedAfter(view.entries, view.lastScan, view.lastClear),
		form: await entryFormFor(ReadingForm, {
			tool: tool ?? '',
			text: '',
			testsRan: false,
			photos: [],
			modules: type.modules.map(({ role }) => ({ role, said: 'not-asked' as const, codes: '' }))
		})
	};
};

const Grown = z.object({ entryId: Ulid, roles: z.array(ModuleRole).min(1).max(ModuleRole.options.length) });

export const actions = {
	/** Modules that the print-out names are described from here on, as they usually are. */
	grow: async (event) => {
		const member = memberHere(event);
		const { services } = event.locals;
		const form = await event.request.formData();
		const asked = Grown.safeParse({ entryId: form.get('entryId'), roles: form.getAll('role') });
		if (!asked.success) return fail(400, { growError: 'Load the page again: it is out of date.' });
		const { row, type, view } = await loadCase(services, event.params.id);
		if (view.signature) return fail(409, { growError: 'This case is signed: its thread is closed.' });
		if (!type) return fail(409, { growError: 'Describe the vehicle first.' });
		const newest = (await services.vehicleDescriptions.newest(type.id)) ?? descriptionOf(type);
		const next = withRoles(newest, [...newest.modules.map(({ role }) => role), ...asked.data.roles]);
		if (!next.ok) return fail(400, { growError: upperFirst(`${next.error}.`) });
		const because = 'The print-out of another tool names it';
		const stored = await describeVehicle(
			services,
			{ caseId: row.id, entryId: asked.data.entryId, because },
			// Which others it has is as open as before.
			newest.assumed.includes('modules')
				? { ...next.value, assumed: [...next.value.assumed, 'modules'] }
				: next.value,
			member
		);
		return stored.ok ? { grown: true } : fail(409, { growError: stored.error });
	},
	save: entryAction(
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
