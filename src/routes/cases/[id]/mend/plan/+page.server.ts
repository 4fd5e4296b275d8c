import { shopFunctions } from '$library/calibrations';
import { latest } from '$lib/case/thread';
import { calibrationsAfter, isCalibrating } from '$lib/case/calibrations';
import { mendingSteps, repairWords } from '$lib/case/reason/reasonView';
import { waysToMend } from '$lib/case/repairPlan';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { reasonOf } from '$lib/server/cases/reason';
import { services } from '$lib/server/running';

export const load = async ({ params, depends, url }) => {
	depends('jaldi:case');
	const loaded = await loadCase(params.id);
	const reasoned = await reasonOf(loaded);
	const planned = latest(loaded.view.entries, 'repair-planned');
	const last = planned && { ...planned.payload, time: clock(planned.observedAt), by: planned.authorName };
	const none = { ways: null, suspected: [], chosen: null, last, odometerKm: null, harsh: false };
	if (!reasoned) return none;
	const { reasoning } = reasoned;
	const { type } = reasoning.model;
	const suspected = mendingSteps(reasoning).map(({ kind, place, name, cures }) => ({
		kind,
		place,
		name,
		cures
	}));
	const [kind, place] = [url.searchParams.get('does'), url.searchParams.get('place')];
	const chosen = kind !== null && place !== null ? { kind, place } : (suspected[0] ?? null);
	if (!chosen) return none;
	const harsh = url.searchParams.get('harsh') !== 'no';
	const odometerKm = latest(loaded.view.entries, 'vehicle-checked')?.payload.odometerKm ?? null;
	const owned = new Set(await services().settings.read('equipment'));
	const ways = waysToMend(reasoning, chosen, { odometerKm, harsh }, owned);
	return {
		ways:
			ways?.map(({ repair, finish, ...way }) => ({
				...way,
				kind: repair.kind,
				place: repair.place,
				part: repair.part,
				calibrates: isCalibrating(repair.kind),
				name: repairWords(repair, reasoning.model),
				answer: finish.answer,
				missing: finish.missing.map((one) => ({
					...one,
					words: shopFunctions.get(one.function)?.words ?? one.function
				})),
				after: calibrationsAfter(repair.kind, repair.place, type).map(({ calibration, module }) => ({
					name: `${calibration.name}, ${module.name.toLowerCase()}`,
					minutes: calibration.minutes
				}))
			})) ?? null,
		suspected,
		chosen: { kind: chosen.kind, place: chosen.place },
		last,
		odometerKm,
		harsh
	};
};
