import { fail, redirect } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { vehicleTypes } from '$library/index';
import { writerHere } from '$lib/server/cases/access';
import { LinkAddress, StandInAddress } from '$lib/server/cases/linkAddress';
import { addEntry } from '$lib/server/cases/addEntry';
import { typeName } from '$lib/server/db/cases';

const NewCase = z
	.object({
		caseId: Ulid,
		entryId: Ulid,
		vehicleId: z.string().max(60),
		typeId: z.string().max(60),
		nickname: z.string().trim().max(80),
		plate: z.string().trim().max(20),
		linkAddress: LinkAddress,
		standInAddress: StandInAddress,
		wanted: z.string().trim().max(60)
	})
	.superRefine((value, context) => {
		if (value.vehicleId !== '') return;
		if (!vehicleTypes.has(value.typeId))
			context.addIssue({ code: 'custom', path: ['typeId'], message: 'Choose what it is.' });
		if (!value.nickname)
			context.addIssue({ code: 'custom', path: ['nickname'], message: 'What do you call it?' });
	});

const fresh = () => ({
	caseId: ulid(),
	entryId: ulid(),
	vehicleId: '',
	typeId: '',
	nickname: '',
	plate: '',
	linkAddress: '',
	standInAddress: '',
	wanted: ''
});

export const load = async (event) => {
	writerHere(event);
	const vehicles = await event.locals.services.cases.vehicles();
	return {
		form: await superValidate(fresh(), zod4(NewCase), { errors: false }),
		vehicles: vehicles.map((v) => ({
			id: v.id,
			name: `${typeName(v.typeId)}, ${v.nickname}`,
			plate: v.plate
		})),
		types: [...vehicleTypes.values()].map((t) => ({ id: t.id, name: `${t.maker} ${t.model} (${t.use})` }))
	};
};

export const actions = {
	default: async (event) => {
		const member = writerHere(event);
		const form = await superValidate(event.request, zod4(NewCase));
		if (!form.valid) return fail(400, { form });
		const { cases, threads } = event.locals.services;
		const { data } = form;
		const known = await cases.find(data.caseId);
		if (known && (await threads.read(known.id)).some(({ id }) => id !== data.entryId && id !== ''))
			return message(form, 'This case is open already: load the page again for a new one.', { status: 409 });
		const vehicles = await cases.vehicles();
		const vehicle =
			data.vehicleId !== ''
				? vehicles.find((v) => v.id === data.vehicleId)
				: await cases.addVehicle({
						// Sent twice, the same form makes the same vehicle.
						id: data.caseId,
						typeId: data.typeId,
						nickname: data.nickname,
						plate: data.plate,
						vin: null,
						linkAddress: data.linkAddress || null,
						standInAddress: data.standInAddress || null
					});
		if (!vehicle) return message(form, 'That vehicle is no longer in the shop’s list.', { status: 400 });
		await cases.open(data.caseId, vehicle.id, data.wanted);
		const stored = await addEntry(
			event.locals.services,
			{
				id: data.entryId,
				caseId: data.caseId,
				kind: 'case-opened',
				payload: {
					vehicleId: vehicle.id,
					typeId: vehicle.typeId,
					name: `${typeName(vehicle.typeId)}, ${vehicle.nickname}`,
					plate: vehicle.plate
				}
			},
			member
		);
		if (!stored.ok) return message(form, stored.error, { status: 400 });
		redirect(303, `/cases/${data.caseId}/listen`);
	}
};
