import { knownCircumferenceM } from '$library/vehicle/known';
import { error } from '@sveltejs/kit';
import { ofKind } from '$lib/case/thread/thread';
import { caseHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	const captures = ofKind(view.entries, 'scope-capture');
	const at = captures.findIndex(({ id }) => id === params.capture);
	const here = captures[at];
	if (!here) error(404, 'There is no such capture on this case.');
	const position = here.payload.channels[0]?.position;
	const kept = type ? await locals.services.goodReadings.capturesOfType(type.id) : [];
	return {
		capture: { id: here.id, time: clock(here.observedAt), by: here.authorName, ...here.payload },
		circumferenceM: knownCircumferenceM(type, position ?? undefined),
		earlier: captures[at - 1]?.id ?? null,
		later: captures[at + 1]?.id ?? null,
		place: [at + 1, captures.length] as const,
		references: [
			...captures
				.filter(({ id }) => id !== here.id)
				.map(({ id, observedAt, payload }) => ({
					id,
					words: `${payload.name || 'capture'}, ${clock(observedAt)}`
				})),
			...kept
				.filter(({ id, caseId }) => id !== here.id && caseId !== params.id)
				.map(({ id, name }) => ({ id, words: `kept as good: ${name || 'capture'}` }))
		]
	};
};
