import { fail, redirect } from '@sveltejs/kit';
import { superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { ulid } from 'ulid';
import { mayTakeIn } from '$lib/server/accounts/members';
import { narrowedBy } from '$lib/server/cases/floorPage';
import { emptyCustomer } from '$lib/server/db/customers';
import { NewCustomer } from './forms';

const MOST_FOUND = 50;

export const load = async ({ url, locals }) => {
	const { customers } = locals.services;
	const words = narrowedBy(url, 'words');
	const listed = await customers.page(Number(url.searchParams.get('page')) || 1);
	const found = words === '' ? listed.rows : await customers.search(words, MOST_FOUND);
	return {
		words,
		customers: found.map(({ id, name, phone, email }) => ({ id, name, phone, email })),
		total: listed.total,
		page: words === '' ? listed.page : 1,
		pages: words === '' ? listed.pages : 1,
		form: await superValidate({ id: ulid(), ...emptyCustomer() }, zod4(NewCustomer), { errors: false }),
		mayAdd: locals.member !== null && mayTakeIn(locals.member)
	};
};

export const actions = {
	default: async (event) => {
		const form = await superValidate(event.request, zod4(NewCustomer));
		if (!form.valid) return fail(400, { form });
		const { id, ...values } = form.data;
		await event.locals.services.customers.add(id, values);
		redirect(303, `/customers/${id}`);
	}
};
