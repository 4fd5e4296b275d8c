import { fail, redirect } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { memberHere } from '$lib/server/cases/access';
import { emptyCase, NewCase, openCase } from '$lib/server/cases/openCase';
import { calledSo, typeName } from '$lib/server/db/cases';
import { vehicleTypes } from '$library/index';
import { vehicleName } from '$library/vehicle/vehicleType';

export const load = async (event) => {
	const { vehicles, vehicleDescriptions, settings } = event.locals.services;
	const [known, described, closesAtHour] = await Promise.all([
		vehicles.newest(),
		vehicleDescriptions.list(),
		settings.read('closesAtHour')
	]);
	const own = described.filter(({ id }) => !vehicleTypes.has(id));
	return {
		form: await superValidate(emptyCase(), zod4(NewCase), { errors: false }),
		closesAtHour,
		/** Found without the server too. */
		vehicles: known.map((v) => ({
			id: v.id,
			name: calledSo(typeName(v.typeId, v.typeName), v.nickname),
			detail: v.plate
		})),
		types: [
			...own.map(({ id, name }) => ({ id, name })),
			...[...vehicleTypes.values()].map((t) => ({ id: t.id, name: `${vehicleName(t)} (${t.use})` }))
		]
	};
};

export const actions = {
	default: async (event) => {
		const member = memberHere(event);
		const form = await superValidate(event.request, zod4(NewCase));
		if (!form.valid) return fail(400, { form });
		const opened = await openCase(event.locals.services, form.data, member);
		if (!opened.ok) return message(form, opened.error, { status: 409 });
		redirect(303, `/cases/${form.data.caseId}/listen`);
	}
};
