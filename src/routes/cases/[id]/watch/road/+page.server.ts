import { channelOf } from '$library/positions';
import { codeConditions, watchDefaults } from '$lib/case/watch/watchDefaults';
import { latest } from '$lib/case/thread/thread';
import { planRoadTest } from '$lib/core/live/roadTest';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { caseHere } from '$lib/server/cases/access';
import { circumstances, facetsOf } from '../../../../../../library/vocabulary';
import { liveSignals } from '../../../../../../library/liveSignals';
import { sayCondition, signals } from '../../../../../../library/signals';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const complaint = latest(view.entries, 'complaint')?.payload;
	const lamps = latest(view.entries, 'lamps-reported')?.payload.lamps ?? [];
	return {
		cautions: (await cautionsHere(locals.services, type)).words(['road', 'manoeuvres']),
		linkAddress: row.vehicle.linkAddress,
		signals: type ? liveSignals(type).map(({ signal, name, unit }) => ({ signal, name, unit })) : [],
		defaults: [...watchDefaults(view).keys()],
		names: Object.fromEntries([...signals].map(([signal, { name }]) => [signal, name])),
		plan: planRoadTest({
			tests: codeConditions(view)
				.filter(({ what }) => what === 'test')
				.map(({ text, condition }) => ({ text, condition, words: sayCondition(condition) })),
			shows: facetsOf([
				...(complaint?.when ?? []),
				...[...circumstances.values()]
					.filter(({ words }) => lamps.some(({ when }) => when === words))
					.map(({ id }) => id)
			]),
			wheels: (type?.wheels ?? []).map(({ position }) => channelOf(position))
		})
	};
};
