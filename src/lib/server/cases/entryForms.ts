import { fail, type RequestEvent } from '@sveltejs/kit';
import { message, superValidate, type Infer, type SuperValidated } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { ulid } from 'ulid';
import { z } from 'zod';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { Ulid } from '../../case/entries/fields';
import { recordedAt } from '../../case/entries/recordedHeaders';
import type { AppendOptions } from '../db/threads';
import { addEntry } from './addEntry';
import { memberHere } from './access';

/**
 * Forms that become entries. Each carries the id of the entry it will make, so that sending it twice stores it once, and
 * the entry it corrects, with why.
 */
const envelope = {
	entryId: Ulid,
	corrects: z.union([Ulid, z.literal('')]),
	why: z.string().trim().max(300)
};

/** A form's schema: its own fields and the envelope. */
export const entrySchema = <T extends z.ZodRawShape>(fields: T) => z.object({ ...fields, ...envelope });

const WHY_NEEDED = 'Say why: the old entry stays, and this stands beside it.';

/** An empty or prefilled form. @param corrects the entry whose values are shown for correction */
export async function entryFormFor<S extends z.ZodObject>(
	schema: S,
	values: Omit<z.input<S>, 'entryId' | 'corrects' | 'why'>,
	corrects: { id: string } | null = null
): Promise<SuperValidated<Infer<S, 'zod4'>, string>> {
	const start = { ...values, entryId: ulid(), corrects: corrects?.id ?? '', why: '' };
	return superValidate(start as never, zod4(schema as never), { errors: false }) as never;
}

/**
 * A number field that starts empty: null until somebody fills it, and refused as long as it is null.
 * @param missing what to say then
 */
export const numberField = (number: z.ZodNumber, missing: string) =>
	number.nullable().refine((value) => value !== null, missing);

/** The value of a {@link numberField} that has passed its schema. Throws if it has not: an empty field is no zero. */
export function filled(value: number | null): number {
	if (value === null) throw new TypeError('an empty number field reached the entry');
	return value;
}

type CaseEvent = RequestEvent<{ id: string }>;

/** A form action that turns the form into an entry of one kind. `toPayload` may refuse with a sentence. */
export function entryAction<S extends z.ZodObject, K extends EntryKind>(
	schema: S,
	kind: K,
	toPayload: (data: z.output<S>, event: CaseEvent) => PayloadOf<K> | string | Promise<PayloadOf<K> | string>,
	saved: string,
	optionsOf: (data: z.output<S>) => AppendOptions = () => ({})
) {
	return async (event: CaseEvent) => {
		const member = memberHere(event);
		const form = await superValidate(event.request, zod4(schema as never));
		const data = form.data as z.output<S> & { entryId: string; corrects: string; why: string };
		if (form.valid && data.corrects !== '' && data.why === '') {
			form.valid = false;
			form.errors = { why: [WHY_NEEDED] } as never;
		}
		if (!form.valid) return fail(400, { form });
		const payload = await toPayload(data, event);
		if (typeof payload === 'string') return message(form, payload, { status: 400 });
		const stored = await addEntry(
			event.locals.services,
			{
				id: data.entryId,
				caseId: event.params.id,
				kind,
				payload,
				observedAt: recordedAt(event.request.headers, new Date()),
				supersedes: data.corrects === '' ? null : { entryId: data.corrects, why: data.why }
			},
			member,
			optionsOf(data)
		);
		if (!stored.ok) return message(form, stored.error, { status: 409 });
		return message(form, saved);
	};
}
