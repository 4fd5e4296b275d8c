import { ofKind } from '$lib/case/thread/thread';
import { exposedByTest } from '$library/exposedBySteps';
import { linksSeenBy } from '$library/reason/sights';
import { testKindOf } from '$library/reason/tests';
import { benchPage } from '$lib/server/cases/benchPage';
import { clock } from '$lib/server/cases/clock';
import { inspections } from '../../../../../../library/measure';

export const load = async (event) => {
	const { view, type, wheel, shared, cautions, ...bench } = await benchPage(event);
	const { at } = shared;
	const family = bench.family?.family ?? null;
	const done = ofKind(view.entries, 'inspection').filter(({ payload }) => payload.position === at);
	return {
		...shared,
		gapMm: wheel?.gapMm ?? null,
		inspections: inspections
			.filter(({ families }) => family === null || families.includes(family))
			.map((one) => {
				const last = done.filter(({ payload }) => payload.inspection === one.id).at(-1);
				return {
					...one,
					sights: one.sights.map((sight) => ({ ...sight, links: linksSeenBy(one.id, sight.id) })),
					cautions: cautions.words(
						type ? exposedByTest({ kind: testKindOf(`look:${one.id}`), place: at }, type) : one.exposes
					),
					last: last ? { ...last.payload, time: clock(last.observedAt), by: last.authorName } : null
				};
			})
	};
};
