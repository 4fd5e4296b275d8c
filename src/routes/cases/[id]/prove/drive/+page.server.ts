import { codeKey } from '$lib/core/codes/codeKey';
import type { CaseCode } from '$lib/case/codes/caseCode';
import { countedRecordings } from '$lib/case/proof/drivenKm';
import { provingDrivePlan } from '$lib/case/proof/provingDrive';
import { watchDefaults } from '$lib/case/watch/watchDefaults';
import { isReturned, type Verdict } from '$lib/core/prove/proof';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { caseHere } from '$lib/server/cases/access';
import { liveSignals } from '$library/liveSignals';
import { signals } from '$library/signals';

const STANDING: readonly Verdict[] = ['never-cleared', 'expected', 'made-by-us', 'consequence'];

const keysOf = (codes: readonly CaseCode[]) => codes.map(codeKey);

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	return {
		cautions: (await cautionsHere(locals.services, type)).words(['road', 'manoeuvres']),
		linkAddress: row.vehicle.linkAddress,
		/** The clear that this drive proves; null where nothing is cleared. */
		cleared: view.lastClear?.id ?? null,
		signals: type ? liveSignals(type).map(({ signal, name, unit }) => ({ signal, name, unit })) : [],
		defaults: [...new Set([...watchDefaults(view).keys(), 'steering', 'brake_switch'])].filter((signal) =>
			(type ? liveSignals(type) : []).some((one) => one.signal === signal)
		),
		names: Object.fromEntries([...signals].map(([signal, { name }]) => [signal, name])),
		plan: provingDrivePlan(view),
		counted: countedRecordings(view.entries),
		known: {
			// Codes that are there anyway: hearing of them is no news.
			standing: keysOf(view.codes.filter(({ proof }) => STANDING.includes(proof.verdict))),
			following: keysOf(view.codes.filter(({ followsFrom }) => followsFrom !== null))
		},
		back: view.codes
			.filter(({ proof }) => isReturned(proof.verdict))
			.map(({ text, moduleName }) => `${text} in ${moduleName}`),
		moduleNames: Object.fromEntries(
			(view.lastScan?.payload.modules ?? []).map(({ address, name }) => [address, name])
		)
	};
};
