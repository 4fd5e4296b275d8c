import { minutesLeft, toGoWords } from '$lib/case/progress/floorWords';
import { nextIn } from '$lib/server/db/outlook';
import { knownHere } from '$lib/server/cases/knownHere';
import { maySign } from '$lib/server/accounts/members';

export const load = async ({ url, depends, locals }) => {
	depends('jaldi:floor');
	const page = Number(url.searchParams.get('page')) || 1;
	const { cases, outlooks, settings, putAside } = locals.services;
	const [floor, closesAtHour, { stamp: known }] = await Promise.all([
		cases.page(false, page),
		settings.read('closesAtHour'),
		knownHere(locals.services)
	]);
	const left = minutesLeft(new Date(), closesAtHour);
	const rows = await Promise.all(
		floor.rows.map(async (row) => {
			const outlook = await outlooks.of(row.id, { seq: row.length, known });
			const { next } = row.summary;
			const reasoned = nextIn(outlook, { seq: row.length, known });
			return {
				...row,
				summary: { ...row.summary, next: next && { ...next, ...reasoned } },
				toGo: toGoWords(outlook, left)
			};
		})
	);
	const aside = locals.member !== null && maySign(locals.member) ? (await putAside.unseen()).length : 0;
	return { floor: { ...floor, rows }, page: floor.page, closesAtHour, aside };
};
