import { caseNumber } from '$lib/server/db/cases';
import { ShopFigures, type Figure } from '$lib/server/db/shopFigures';
import { services } from '$lib/server/running';

export const load = async () => {
	const all = new ShopFigures(services().db);
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
