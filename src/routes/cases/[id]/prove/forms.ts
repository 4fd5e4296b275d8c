import { z } from 'zod';
import { LampCheck, ROADS } from '$lib/case/entry';
import { entrySchema, numberField } from '$lib/server/cases/entryForms';

const Watched = LampCheck.shape.lamps.element;
/** Nothing is chosen beforehand: a hurried save must not say that somebody watched. */
export const NOT_WATCHED = 'not watched yet';
export const LampCheckForm = entrySchema({
	lamps: z
		.array(Watched.extend({ result: z.enum([...Watched.shape.result.options, NOT_WATCHED]) }))
		.refine((lamps) => lamps.every(({ result }) => result !== NOT_WATCHED), 'Say of each lamp what it did.')
});

export const DriveForm = entrySchema({
	distanceKm: numberField(
		z.number().positive('A drive has a distance.').max(2000, 'Longer than any proving drive.'),
		'Kilometres, as a number.'
	),
	topSpeedKmh: numberField(
		z.number().positive('A drive has a speed.').max(300, 'No vehicle here goes that fast.'),
		'km/h, as a number.'
	),
	stops: numberField(z.number().int('Whole stops.').min(0).max(1000), 'How many, as a number.'),
	road: z.enum(ROADS),
	driver: z.string().trim().max(100),
	note: z.string().trim().max(2000)
});

export const KeyByHandForm = entrySchema({});
