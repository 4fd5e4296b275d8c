import { z } from 'zod';
import { Complaint } from '$lib/case/entries/complaint/payload';
import { Ulid } from '$lib/case/entries/fields';
import { GRADES } from '$lib/case/entries/shapes';
import { LAMPS } from '$library/positions';
import { AGO, FITTERS, PriorWork } from '$lib/case/entries/prior-work/payload';
import { TyresFitted } from '$lib/case/entries/tyres-fitted/payload';
import { parseTyreSize } from '$lib/core/tyres/tyreSize';
import { POSITIONS } from '$library/positions';
import { checkVin } from '$lib/core/vehicle/vin';
import { circumstances, symptoms, works } from '$library/vocabulary';
import { CustomerValues } from '$lib/server/db/customers';
import { entrySchema, numberField } from '$lib/server/cases/entryForms';

/** The forms of Listen, each one entry. */
export const ComplaintForm = entrySchema({
	words: z.string().trim().min(1, 'In the customer’s own words: at least one.').max(2000),
	symptoms: Complaint.shape.symptoms,
	conditions: Complaint.shape.conditions,
	felt: z.array(z.string().refine((id) => symptoms.has(id), 'That is not on the list.')).max(20),
	when: z.array(z.string().refine((id) => circumstances.has(id), 'That is not on the list.')).max(20),
	atKmh: z.number().min(1, 'From 1 km/h on.').max(250, 'That is too fast for any of them.').nullable()
});

/** Somebody of the shop’s list, or somebody new who gets this id. */
export const CustomerForm = entrySchema({
	customer: z.union([Ulid, z.literal('')]),
	newId: Ulid,
	...CustomerValues.shape,
	// Nobody new has no name.
	name: z.string().trim().max(120)
}).refine(({ customer, name }) => customer !== '' || name !== '', {
	path: ['name'],
	message: 'What is their name?'
});

export const VehicleForm = entrySchema({
	vin: z.string().superRefine((text, context) => {
		const checked = checkVin(text);
		if (!checked.ok) context.addIssue({ code: 'custom', message: checked.error });
	}),
	/** It is the vehicle of this shop that has this number already. */
	same: z.boolean(),
	odometerKm: numberField(
		z.number().min(0, 'It cannot be below zero.').max(5_000_000, 'That is too far for any vehicle.'),
		'Kilometres, as a number.'
	)
});

export const LampsForm = entrySchema({
	lamps: z.array(
		z.object({
			lamp: z.enum(LAMPS),
			manner: z.enum(['off', 'steady', 'flashing']),
			when: z.string().trim().max(200)
		})
	)
});

/** `` = nobody knows. */
const YesNo = z.enum(['', 'yes', 'no']);

export const PriorWorkForm = entrySchema({
	works: z.array(
		PriorWork.shape.works.element.extend({
			part: z.string().trim().min(1, 'Which part?').max(200),
			work: z.string().refine((id) => id === '' || works.has(id), 'That is not on the list.'),
			grade: z.enum(GRADES),
			position: z.enum(['', ...POSITIONS]),
			ago: z.enum(['', ...AGO]),
			fitter: z.enum(['', ...FITTERS]),
			seen: YesNo,
			stayed: YesNo
		})
	)
});

export const TyresForm = entrySchema({
	tyres: z.array(
		TyresFitted.shape.tyres.element.extend({
			size: z.string().trim().min(1, 'As it stands on the sidewall.').max(40)
		})
	),
	placard: z
		.array(
			z.object({ axle: z.number().int().min(1).max(6), words: z.string(), size: z.string().trim().max(40) })
		)
		.superRefine((rows, context) => {
			for (const [nth, { size }] of rows.entries()) {
				const parsed = size === '' ? null : parseTyreSize(size);
				if (parsed && !parsed.ok)
					context.addIssue({ code: 'custom', path: [nth, 'size'], message: parsed.error });
			}
		})
});
