import { error, fail } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { codesOver, kmPerYear, visitOf } from '$lib/case/progress/vehicleHistory';
import { checkVin } from '$lib/core/vehicle/vin';
import { mayTakeIn } from '$lib/server/accounts/members';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { clock, dayOf } from '$lib/server/cases/clock';
import { typeName } from '$lib/server/db/cases';

/** What a vehicle is called by, and which version of that was seen. */
const CalledBy = z.object({
	nickname: z.string().trim().max(80),
	plate: z.string().trim().max(20),
	vin: z
		.string()
		.trim()
		.max(40)
		.superRefine((text, context) => {
			const checked = text === '' ? null : checkVin(text);
			if (checked && !checked.ok) context.addIssue({ code: 'custom', message: checked.error });
		}),
	version: z.number().int().min(1)
});

/** Visits that are shown; older ones are found by search. */
const MOST_VISITS = 20;
/** Cases that are found by a new name, the newest of its vehicle. */
const MOST_RENAMED = 200;

export const load = async ({ params, locals }) => {
	const { services } = locals;
	const vehicle = await services.vehicles.find(params.id);
	if (!vehicle) error(404, 'No such vehicle was ever here.');
	const ids = await services.cases.idsOfVehicle(vehicle.id, MOST_VISITS);
	const loaded = await Promise.all(ids.map((id) => loadCase(services, id)));
	const visits = loaded.map(({ row, thread, view }) =>
		visitOf({ id: row.id, number: row.number, signed: row.signed, at: thread[0]?.observedAt ?? '' }, view)
	);
	const vins = new Set(
		loaded.flatMap(({ view }) =>
			view.entries.flatMap((entry) => (entry.kind === 'vehicle-checked' ? [entry.payload.vin] : []))
		)
	);
	const customerId = await services.vehicles.lastCustomerOf(vehicle.id);
	const customer = customerId === null ? null : await services.customers.find(customerId);
	return {
		form: await superValidate(
			{ nickname: vehicle.nickname, plate: vehicle.plate, vin: vehicle.vin ?? '', version: vehicle.version },
			zod4(CalledBy),
			{ errors: false }
		),
		past: (await services.vehicles.past(vehicle.id)).map(({ at, ...one }) => ({ ...one, at: clock(at) })),
		customer: customer && { id: customer.id, name: customer.name },
		mayChange: locals.member !== null && mayTakeIn(locals.member),
		vehicle: {
			id: vehicle.id,
			name: typeName(vehicle.typeId, vehicle.typeName),
			nickname: vehicle.nickname,
			plate: vehicle.plate,
			vin: vehicle.vin,
			vins: [...(vins.size > 0 ? vins : new Set(vehicle.vin ? [vehicle.vin] : []))]
		},
		visits: visits.map((visit) => ({ ...visit, day: visit.at === '' ? '' : dayOf(visit.at) })),
		codes: codesOver(visits),
		kmPerYear: kmPerYear(visits),
		isAll: ids.length < MOST_VISITS
	};
};

export const actions = {
	default: async (event) => {
		const form = await superValidate(event.request, zod4(CalledBy));
		if (!form.valid) return fail(400, { form });
		const { version, nickname, plate, vin: typed } = form.data;
		const { vehicles, cases } = event.locals.services;
		const { id } = event.params;
		const checked = typed === '' ? null : checkVin(typed);
		const vin = checked?.ok ? checked.value.vin : null;
		const changed = await vehicles.rename(id, version, { nickname, plate, vin }, memberHere(event));
		if (!changed.ok) return message(form, changed.error, { status: 409 });
		// They are found by the new name too.
		for (const caseId of await cases.idsOfVehicle(id, MOST_RENAMED)) cases.later(caseId);
		form.data.version = (await vehicles.find(id))?.version ?? version;
		return message(form, 'Saved.');
	}
};
