import { typeOf } from '$lib/case/codes';
import { countedRecordings } from '$lib/case/drivenKm';
import { provingDrivePlan } from '$lib/case/provingDrive';
import { watchDefaults } from '$lib/case/watchDefaults';
import { loadCase } from '$lib/server/cases/access';
import { liveSignals } from '$library/liveSignals';
import { signals } from '$library/signals';

export const load = async ({ params, depends }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const type = typeOf(view.entries);
	return {
		linkAddress: row.vehicle.linkAddress,
		cleared: view.lastClear !== null,
		signals: type ? liveSignals(type).map(({ signal, name, unit }) => ({ signal, name, unit })) : [],
		defaults: [...new Set([...watchDefaults(view).keys(), 'steering', 'brake_switch'])].filter((signal) =>
			(type ? liveSignals(type) : []).some((one) => one.signal === signal)
		),
		names: Object.fromEntries([...signals].map(([signal, { name }]) => [signal, name])),
		plan: provingDrivePlan(view),
		counted: countedRecordings(view.entries)
	};
};
