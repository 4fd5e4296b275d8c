import { familyAt } from '$lib/case/measured';
import { ofKind } from '$lib/case/thread';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { cornersOf } from '$lib/server/cases/corners';
import { typeOf } from '$lib/case/codes';
import { cautionText, inspections } from '../../../../../../library/measure';

export const load = async ({ params, url, depends }) => {
	depends('jaldi:case');
	const { view } = await loadCase(params.id);
	const corners = cornersOf(view, url.searchParams.get('at'));
	const { at } = corners;
	const family = familyAt(view.entries, at)?.family ?? null;
	const wheel = typeOf(view.entries)?.wheels.find(({ position }) => position === at);
	const done = ofKind(view.entries, 'inspection').filter(({ payload }) => payload.position === at);
	return {
		...corners,
		gapMm: wheel?.gapMm ?? null,
		inspections: inspections
			.filter(({ families }) => family === null || families.includes(family))
			.map((one) => {
				const last = done.filter(({ payload }) => payload.inspection === one.id).at(-1);
				return {
					...one,
					cautions: one.cautions.map(cautionText),
					last: last ? { ...last.payload, time: clock(last.observedAt), by: last.authorName } : null
				};
			})
	};
};
