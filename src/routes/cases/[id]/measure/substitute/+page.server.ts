import { typeOf } from '$lib/case/codes';
import { familyAt, mateOf } from '$lib/case/measured';
import { positionWords } from '$lib/case/words';
import { loadCase } from '$lib/server/cases/access';
import { cornersOf } from '$lib/server/cases/corners';
import { liveSignals } from '../../../../../../library/liveSignals';
import { nodeOf } from '../../../../../../library/measurePoints';
import { cautionText, substituteMethods, unsuitedFor } from '../../../../../../library/measure';

export const load = async ({ params, url, depends }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const type = typeOf(view.entries);
	const corners = cornersOf(view, url.searchParams.get('at'));
	const { at } = corners;
	const family = familyAt(view.entries, at)?.family ?? null;
	const wheel = type?.wheels.find(({ position }) => position === at);
	const mate = mateOf(at);
	return {
		...corners,
		mate,
		mateWords: positionWords(mate),
		family,
		teeth: wheel?.ringTeeth ?? null,
		circumferenceM: wheel?.circumferenceM ?? null,
		senseResistorOhms: type?.senseResistorOhms ?? null,
		linkAddress: row.vehicle.linkAddress,
		/** Whether live data of this wheel can be watched here. */
		signal:
			(type ? liveSignals(type) : []).find(({ signal }) => signal === at.replace('-', '_'))?.signal ?? null,
		standIn: row.vehicle.standInAddress !== null,
		nodes: type && { feed: nodeOf(type, at, 'wire:feed'), signal: nodeOf(type, at, 'wire:signal') },
		methods: substituteMethods.map((method) => ({
			...method,
			unfit: family ? unsuitedFor(method, family) : null,
			cautions: method.cautions.map(cautionText)
		}))
	};
};
