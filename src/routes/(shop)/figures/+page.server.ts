import { maySign } from '$lib/server/accounts/members';
import { figuresAsked, spanWords, withinAsked } from '$lib/server/cases/figuresAsked';
import { caseNumber } from '$lib/server/db/caseNumber';
import type { Figure } from '$lib/server/db/shopFigures';

export const load = async ({ url, locals }) => {
	const listed = <T extends { cases: Figure['cases'] }>(one: T) => ({
		...one,
		cases: one.cases.map(({ id, number, nickname }) => ({ id, number: caseNumber(number), nickname }))
	});
	const { services, member } = locals;
	const asked = figuresAsked(url);
	const [all, people, terms] = await Promise.all([
		services.heavy.ask('figures', withinAsked(asked, member)),
		services.people.atWork(),
		services.settings.read('terms')
	]);
	return {
		asked,
		span: spanWords(asked),
		/** Whose work may be looked at alone. */
		people: people
			.filter(({ id }) => id === member?.id || (member !== null && maySign(member)))
			.map(({ id, name }) => ({ id, name })),
		figures: all.figures.map(listed),
		isAll: all.isAll,
		cameBack: all.cameBack.map((one) => ({ ...one, number: caseNumber(one.number) })),
		estimated: all.estimated,
		saved: all.saved,
		currency: terms?.currency ?? null,
		minutes: all.minutes.map(listed),
		codes: all.codes.map(listed)
	};
};
