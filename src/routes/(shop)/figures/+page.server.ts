import { caseNumber } from '$lib/server/db/cases';
import { ShopFigures, type Figure } from '$lib/server/db/shopFigures';

export const load = async ({ locals }) => {
	const all = new ShopFigures(locals.services.db);
	const listed = <T extends { cases: Figure['cases'] }>(one: T) => ({
		...one,
		cases: one.cases.map(({ id, number, nickname }) => ({ id, number: caseNumber(number), nickname }))
	});
	const [figures, minutes, codes] = await Promise.all([
		all.figures(),
		all.minutesByStation(),
		all.codesByType()
	]);
	return { figures: figures.map(listed), minutes: minutes.map(listed), codes: codes.map(listed) };
};
