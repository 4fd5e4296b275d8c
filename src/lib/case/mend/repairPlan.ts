import { shopFunctions } from '../../../../library/calibrations';
import type { PlacedRepair, ReasonModel } from '../../../../library/reason/placed';
import { accessMinutesFor } from '../../../../library/reason/tests';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { Position } from '../../../../library/positions';
import { judgedAs, repairs } from '../../../../library/repairs';
import { canFinish, type CanFinish, type Needed } from '../../core/calibrate/canFinish';
import { repairWorth, type Duty } from '../../core/calibrate/repairWorth';
import { calibrationsAfter } from './calibrations';
import type { Reasoning } from '../reason/reasoning';

/** One way to mend what is suspected, as the shop decides between them. */
export interface RepairWay {
	repair: PlacedRepair;
	/** That it cures what is there, by what is known now. */
	cures: number;
	minutesNow: number;
	/** What of getting there is already done. */
	accessDone: number;
	price: number;
	comesBack: number;
	expectedMinutes: number;
	temporary: boolean;
	why: string;
	finish: CanFinish;
}

/** Below this nobody thinks of a fault. */
const SUSPECTED_FROM = 0.02;

const cures = ({ belief, model }: Reasoning, repair: number): number =>
	Math.min(
		1,
		[...model.faults.keys()]
			.filter((fault) => model.faults[fault]?.curedBy.includes(repair))
			.reduce((sum, fault) => sum + (belief.present[fault] ?? 0), 0)
	);

/** What a repair and all that it calls for afterwards need of a shop. */
export function neededFor(repair: PlacedRepair, type: ReasonModel['type']): Needed[] {
	const own = (repairs.get(repair.kind)?.needs ?? []).map((id) => ({ id, for: repair.name, own: true }));
	const later = calibrationsAfter(repair.kind, repair.place, type).flatMap(({ calibration }) =>
		calibration.needs.map((id) => ({ id, for: calibration.name, own: false }))
	);
	const byFunction = new Map<string, Needed>();
	for (const { id, for: what, own: forItself } of [...own, ...later]) {
		const before = forItself || (shopFunctions.get(id)?.before ?? false);
		const known = byFunction.get(id);
		byFunction.set(id, {
			function: id,
			before: before || (known?.before ?? false),
			for: known ? `${known.for}, ${what}` : what
		});
	}
	return [...byFunction.values()];
}

/** Repairs that do all of this one and more, where the vehicle has such a part. */
function widerThan({ kind, place }: PlacedRepair, type: ReasonModel['type']): PlacedRepair[] {
	const at = Position.safeParse(place).success ? wheelReaderOf(type)?.role : place;
	return [...repairs.values()]
		.filter(({ countsAs, roles }) => countsAs === kind && (!roles || roles.some((role) => role === at)))
		.map(({ id, name, minutes, price, part }) => ({
			id: `${id}@${place}`,
			kind: id,
			name,
			place,
			part,
			minutes,
			price
		}));
}

/**
 * The ways to mend what a repair would mend, the one with the least expected minutes first: all that cure the likeliest
 * fault that it cures. Null where the vehicle has no such repair.
 */
export function waysToMend(
	reasoning: Reasoning,
	{ kind, place }: { kind: string; place: string },
	duty: Duty,
	owned: ReadonlySet<string>
): RepairWay[] | null {
	const { model, belief, policy, accessGained } = reasoning;
	const chosen = model.repairs.findIndex((one) => one.kind === judgedAs(kind) && one.place === place);
	if (chosen < 0) return null;
	// Where nothing is suspected yet, what is met most often.
	const weight = (index: number) => {
		const p = belief.present[index] ?? 0;
		return p >= SUSPECTED_FROM ? 1 + p : (model.faults[index]?.prior ?? 0);
	};
	const [fault] = [...model.faults.keys()]
		.filter((index) => model.faults[index]?.curedBy.includes(chosen))
		.sort((a, b) => weight(b) - weight(a));
	const ways = new Set([chosen, ...(fault === undefined ? [] : (model.faults[fault]?.curedBy ?? []))]);
	return [...ways]
		.flatMap((index) => {
			const repair = model.repairs[index];
			return repair ? [repair, ...widerThan(repair, model.type)].map((one) => ({ index, repair: one })) : [];
		})
		.flatMap(({ index, repair }): RepairWay[] => {
			const told = repairs.get(repair.kind);
			if (!told) return [];
			const access = accessMinutesFor(told.access, model.type, repair.place);
			const full = access.reduce((sum, { minutes }) => sum + minutes, 0);
			const left = access
				.filter(({ id }) => !accessGained.has(id))
				.reduce((sum, { minutes }) => sum + minutes, 0);
			const option = {
				minutes: repair.minutes,
				accessMinutes: full,
				accessLeft: left,
				price: repair.price,
				comesBack: told.comesBack
			};
			return [
				{
					repair,
					cures: cures(reasoning, index),
					accessDone: full - left,
					price: repair.price,
					temporary: told.temporary,
					why: told.why,
					finish: canFinish(neededFor(repair, model.type), owned),
					...repairWorth(option, duty, policy.minutesPerMoney)
				}
			];
		})
		.sort((a, b) => a.expectedMinutes - b.expectedMinutes);
}
