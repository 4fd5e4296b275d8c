import { error, fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { message, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { codeOfSlug, numberCalled, slugOf, slugOfNumber } from '$lib/case/codes/decoderAnswer';
import { numberOf } from '$lib/core/codes/codeId';
import { memberHere } from '$lib/server/cases/access';
import { CodeDefinition, DRIVING, GROUPS } from '$library/codePack';
import { titleSource } from '$library/codes';
import { kindsOfFailure } from '$library/failureTypes';
import { signals } from '$library/signals';
import { DefinitionForm, fromDefinition, toDefinition } from './form';

type CodeEvent = Pick<RequestEvent<{ code: string }>, 'params' | 'locals'>;

/** The code to write about and who writes; the gate lets a lead through alone. */
function writing(event: CodeEvent) {
	const member = memberHere(event);
	const code = codeOfSlug(event.params.code);
	if (!code || code.kind === 'lamp')
		error(404, `“${event.params.code}” is no code that a shop can write about.`);
	return {
		member,
		code: numberOf(code),
		/** A maker's own notation has no suffix that a definition could be for. */
		own: code.kind === 'own',
		heavy: code.kind === 'j1939',
		failureType: code.kind === 'dtc' ? (code.failureType ?? '') : '',
		slug: slugOf({ ...code, ...(code.kind === 'dtc' ? { status: null } : {}) })
	};
}

const newest = async ({ locals }: CodeEvent, code: string, failureType: string) =>
	(await locals.services.codes.ownVersions(code)).find(
		(v) => code.startsWith('=') || (v.definition.failureType ?? '') === failureType
	);

export const load = async (event) => {
	const { code, failureType, own: isOwn, heavy, slug } = writing(event);
	const own = await newest(event, code, failureType);
	const book = await event.locals.services.codes.bookFor([code]);
	const other = own ? null : titleSource(book, { code, failureType: failureType || null });
	const from = own?.definition ?? other;
	return {
		code: numberCalled(code, null),
		isOwn,
		heavy,
		slug,
		kinds: isOwn ? kindsOfFailure() : [],
		from: own ? `version ${own.version}` : (other?.pack.name ?? null),
		form: await superValidate(
			fromDefinition(from, own?.version ?? 0, isOwn ? (from?.failureType ?? '') : failureType),
			zod4(DefinitionForm),
			{
				errors: false
			}
		),
		groups: Object.entries(GROUPS),
		driving: Object.entries(DRIVING),
		signals: [...signals.values()]
	};
};

export const actions = {
	default: async (event) => {
		const { member, code, slug, own: isOwn, heavy } = writing(event);
		const form = await superValidate(event.request, zod4(DefinitionForm));
		if (!form.valid) return fail(400, { form });
		const { why, basedOn, failureType } = form.data;
		const before = await newest(event, code, failureType);
		const definition = CodeDefinition.safeParse(
			toDefinition(code, form.data, {
				sender: before?.definition.sender ?? null,
				component: before?.definition.component ?? null
			})
		);
		if (!definition.success)
			return message(form, definition.error.issues[0]?.message ?? 'Something is not right.', { status: 400 });
		const saved = await event.locals.services.codes.saveOwn(definition.data, {
			authorName: member.name,
			why,
			basedOn
		});
		if (!saved.ok) return message(form, saved.error, { status: 409 });
		redirect(303, `/codes/${isOwn || heavy ? slug : slugOfNumber(code, failureType || null)}`);
	}
};
