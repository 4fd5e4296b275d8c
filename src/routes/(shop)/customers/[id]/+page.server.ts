import { error, fail, redirect } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { mayTakeIn, maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { clock, dayOf } from '$lib/server/cases/clock';
import { ChangedCustomer } from '../forms';

const MOST_CASES = 50;

export const load = async ({ params, locals }) => {
	const { customers, cases } = locals.services;
	const customer = await customers.find(params.id);
	if (!customer) error(404, 'There is no such customer, or they asked to be taken out.');
	const brought = await cases.ofCustomer(customer.id, MOST_CASES);
	const vehicles = new Map(
		brought.map(({ vehicle, vehicleName }) => [
			vehicle.id,
			{ id: vehicle.id, name: vehicle.nickname || vehicleName, kind: vehicleName, plate: vehicle.plate }
		])
	);
	return {
		customer: { ...customer, since: dayOf(customer.createdAt) },
		form: await superValidate(customer, zod4(ChangedCustomer), { errors: false }),
		vehicles: [...vehicles.values()],
		cases: brought.map(({ id, number, vehicle, vehicleName, signed, summary }) => ({
			id,
			number,
			vehicle: vehicle.nickname || vehicleName,
			signed,
			complaint: summary.complaint,
			verdict: summary.verdict
		})),
		isAll: brought.length < MOST_CASES,
		past: (await customers.past(customer.id)).map(({ at, ...one }) => ({ ...one, at: clock(at) })),
		mayChange: locals.member !== null && mayTakeIn(locals.member),
		mayForget: locals.member !== null && maySign(locals.member)
	};
};

export const actions = {
	change: async (event) => {
		const form = await superValidate(event.request, zod4(ChangedCustomer));
		if (!form.valid) return fail(400, { form });
		const { version, ...values } = form.data;
		const { customers } = event.locals.services;
		const changed = await customers.change(event.params.id, version, values, memberHere(event));
		if (!changed.ok) return message(form, changed.error, { status: 409 });
		form.data.version = (await customers.find(event.params.id))?.version ?? version;
		return message(form, 'Saved.');
	},
	forget: async (event) => {
		await event.locals.services.customers.forget(event.params.id, memberHere(event));
		redirect(303, '/customers');
	}
};
