import { isCodeKey } from '$lib/core/codes/codeKey';
import { LONGEST_OWN } from '$lib/core/codes/ownNotation';
import { z } from 'zod';
import { ANSWERS, ComplaintAnswered } from '$lib/case/entries/complaint-answered/payload';
import { LampCheck } from '$lib/case/entries/lamp-check/payload';
import { RETURNS_FROM, type ShowsWhen } from '$lib/case/entries/returns-told/payload';
import { ROADS } from '$lib/case/entries/shapes';
import { WAIVABLE } from '$lib/core/prove/proof';
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
	asShownKm: z
		.number('Kilometres, as a number.')
		.min(0, 'Kilometres, as a number.')
		.max(2000, 'Longer than any proving drive.')
		.nullable(),
	stops: numberField(z.number().int('Whole stops.').min(0).max(1000), 'How many, as a number.'),
	road: z.enum(ROADS),
	driver: z.string().trim().max(100),
	note: z.string().trim().max(2000)
});

export const ClearedForm = entrySchema({
	tool: z.string().trim().min(1, 'With which tool?').max(120)
});

export const KeyByHandForm = entrySchema({});

/** Which code of which module a form is about. */
const CodeKey = z
	.string()
	.max(LONGEST_OWN + 6)
	.refine(isCodeKey, 'No code is called so: load the page again.');

const SpeedLimit = z
	.number('A speed, in km/h.')
	.min(0, 'A speed, in km/h.')
	.max(300, 'No vehicle here goes that fast.')
	.nullable();

export const ReturnsForm = entrySchema({
	code: CodeKey,
	returns: numberField(
		z.number().int('Whole times.').min(1, 'It came once or more.').max(100_000),
		'How many times, as a number.'
	),
	overKm: numberField(
		z.number().positive('A distance is above 0.').max(1_000_000),
		'Kilometres, as a number.'
	),
	from: z.enum(RETURNS_FROM),
	conditions: z.string().trim().max(300),
	fromKmh: SpeedLimit,
	toKmh: SpeedLimit,
	turning: z.boolean(),
	road: z.enum(['', ...ROADS])
}).refine(({ fromKmh, toKmh }) => fromKmh === null || toKmh === null || fromKmh < toKmh, {
	message: 'The upper speed is above the lower one.',
	path: ['toKmh']
});

/** What a fault asks of a drive, as a form says it; undefined where it asks nothing. */
export function showsWhenOf({
	fromKmh,
	toKmh,
	turning,
	road
}: Pick<z.infer<typeof ReturnsForm>, 'fromKmh' | 'toKmh' | 'turning' | 'road'>): ShowsWhen | undefined {
	const asks = fromKmh !== null || toKmh !== null || turning || road !== '';
	return asks ? { fromKmh, toKmh, turning, road: road === '' ? null : road } : undefined;
}

export const AnswerForm = entrySchema({
	what: ComplaintAnswered.shape.what,
	thing: z.string().trim().min(1).max(2000),
	how: z.enum(ANSWERS),
	reason: z.string().trim().max(300)
}).refine(({ how, reason }) => how === 'shows-again' || reason !== '', {
	message: 'Say how it was tried, or why: it stands on the report, with your name.',
	path: ['reason']
});

export const LetGoForm = entrySchema({
	code: CodeKey,
	mark: z.enum(WAIVABLE),
	reason: z.string().trim().min(1, 'Say why: it stands on the report, with your name.').max(300),
	customer: z.string().trim().max(300)
});
