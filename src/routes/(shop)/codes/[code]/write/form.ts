import { z } from 'zod';
import { CodeDefinition, Driving, Group, ReadableCondition } from '$library/codePack';
import { LAMPS, POSITIONS } from '$library/positions';

/** The shop's own words on a code, as a form holds them: no empty values, lists as lines of text. */
export const DefinitionForm = z.object({
	failureType: z
		.string()
		.trim()
		.toUpperCase()
		.regex(/^([0-9A-F]{2})?$/, 'Two hex digits, or nothing for every suffix.'),
	title: z.string().trim().min(1, 'Write what it is called here.').max(120),
	group: Group,
	corner: z.enum(['', ...POSITIONS]),
	lamps: z.array(z.enum(LAMPS)),
	driving: Driving,
	causes: z.string(),
	notes: z.string().max(2000),
	setConditions: ReadableCondition.nullable(),
	testConditions: ReadableCondition.nullable(),
	why: z.string().trim().min(1, 'Say why: the old version stays beside it.').max(300),
	basedOn: z.number().int().min(0)
});
export type DefinitionForm = z.infer<typeof DefinitionForm>;

/** @param kept what the form does not ask for stays as the source has it */
export const toDefinition = (
	code: string,
	form: DefinitionForm,
	kept: Pick<CodeDefinition, 'sender' | 'component'>
): CodeDefinition => ({
	code,
	failureType: form.failureType || null,
	title: form.title,
	group: form.group,
	corner: form.corner || null,
	lamps: form.lamps,
	driving: form.driving,
	setConditions: form.setConditions,
	testConditions: form.testConditions,
	causes: form.causes
		.split('\n')
		.map((line) => line.trim())
		.filter((line) => line !== ''),
	notes: form.notes.trim(),
	...kept
});

/** What the form starts from: the newest own words, else those of the most trusted source, else nothing. */
export function fromDefinition(
	from: CodeDefinition | null,
	basedOn: number,
	failureType: string
): z.input<typeof DefinitionForm> {
	return {
		failureType,
		title: from?.title ?? '',
		group: from?.group ?? 'wheel-speed',
		corner: from?.corner ?? '',
		lamps: from?.lamps ?? [],
		driving: from?.driving ?? 'unaffected',
		causes: from?.causes.join('\n') ?? '',
		notes: from?.notes ?? '',
		setConditions: from?.setConditions ?? null,
		testConditions: from?.testConditions ?? null,
		why: '',
		basedOn
	};
}
