import { minutesLeft, toGoWords } from '$lib/case/floorWords';
import { maySign } from '$lib/server/accounts/members';
import { services } from '$lib/server/running';

export const load = async ({ url, depends, locals }) => {
	depends('jaldi:floor');
	const page = Number(url.searchParams.get('page')) || 1;
	const { cases, outlooks, settings, putAside } = services();
	const [floor, closesAtHour] = await Promise.all([cases.page(false, page), settings.read('closesAtHour')]);
	const left = minutesLeft(new Date(), closesAtHour);
	const rows = await Promise.all(
		floor.rows.map(async (row) => {
			const outlook = await outlooks.of(row.id, row.length);
			const { next } = row.summary;
			const reasoned =
				outlook?.seq === row.length && outlook.nextTitle && outlook.nextWhy
					? { title: outlook.nextTitle, why: outlook.nextWhy }
					: {};
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
