import { shopFunctions } from '../../../../library/calibrations';
import { latest } from '../../case/thread/thread';
import { calibrationsAfter, isCalibrating } from '../../case/mend/calibrations';
import { mendingSteps, repairWords } from '../../case/reason/reasonView';
import { waysToMend } from '../../case/mend/repairPlan';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { clock } from './clock';
import { reasonOf } from './reason';

interface PlanAsked {
	caseId: string;
	/** Repair and place that the page is about; null = what is suspected most. */
	kind: string | null;
	place: string | null;
	/** Whether the vehicle works where things rust. */
	harsh: boolean;
}

/** The ways to mend something, and whether this shop can finish each. */
export async function planPage(stores: Stores, { caseId, kind, place, harsh }: PlanAsked) {
	const loaded = await loadCase(stores, caseId);
	const reasoned = await reasonOf(stores, loaded);
	const planned = latest(loaded.view.entries, 'repair-planned');
	const last = planned && { ...planned.payload, time: clock(planned.observedAt), by: planned.authorName };
	const none = { ways: null, suspected: [], chosen: null, last, odometerKm: null, harsh: false };
	if (!reasoned) return none;
	const { reasoning } = reasoned;
	const { type } = reasoning.model;
	const suspected = mendingSteps(reasoning).map((one) => ({
		kind: one.kind,
		place: one.place,
		name: one.name,
		ends: one.ends
	}));
	const chosen = kind !== null && place !== null ? { kind, place } : (suspected[0] ?? null);
	if (!chosen) return none;
	const odometerKm = latest(loaded.view.entries, 'vehicle-checked')?.payload.odometerKm ?? null;
	const owned = new Set(await stores.settings.read('equipment'));
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
}
