import { caseNumber } from '$lib/server/db/cases';
import type { Figure } from '$lib/server/db/shopFigures';

export const load = async ({ locals }) => {
	const listed = <T extends { cases: Figure['cases'] }>(one: T) => ({
		...one,
		cases: one.cases.map(({ id, number, nickname }) => ({ id, number: caseNumber(number), nickname }))
	});
	const { figures, minutes, codes } = await locals.services.heavy.ask('figures', null);
	return { figures: figures.map(listed), minutes: minutes.map(listed), codes: codes.map(listed) };
};
