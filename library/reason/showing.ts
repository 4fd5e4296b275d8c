import type { VehicleType } from '../vehicles';
import { familiesAt, familiesOf, only } from '../wheelSensors';
import type { OutcomeBin } from './outcomes';
import { OutcomesBySensor } from './outcomesBySensor';
import type { PlacedFault } from './placed';
import { faultClass, relationOf, type Relation } from './relations';
import { isByEyeAlone, shownSights, sightsOf, soundSights, type EyeSign } from './sights';
import type { Sign } from './signs';

const GATEWAY = 'gateway';

/** What a sign shows at a place of a vehicle, by what is wrong. */
interface Showing {
	outcomes: readonly string[];
	/** Where nothing is wrong. */
	sound: Float64Array;
	/** Under a fault; null where it shows as if nothing were wrong. */
	of: (placed: PlacedFault, bin: OutcomeBin) => Float64Array | null;
}

/** By the rule of what eyes see, or as it was counted. */
export const showing = (sign: Sign, place: string, type: VehicleType): Showing =>
	isByEyeAlone(sign) ? seenByEye(sign, place, type) : counted(sign, place, type);

function seenByEye(sign: EyeSign, place: string, type: VehicleType): Showing {
	const outcomes = Object.keys(sign.outcomes);
	const inOrder = (chances: ReadonlyMap<string, number>) =>
		Float64Array.from(outcomes, (outcome) => chances.get(outcome) ?? 0);
	return {
		outcomes,
		sound: inOrder(soundSights(sign)),
		of({ fault, place: at }) {
			const seen = sightsOf(fault, at, sign, { kind: sign.about, place }, type);
			return seen.size === 0 ? null : inOrder(shownSights(sign, seen));
		}
	};
}

function counted(sign: Sign, place: string, type: VehicleType): Showing {
	const bySensor = new OutcomesBySensor(sign, familiesOf(type, sign.about, place));
	const relations = new Map<string, Relation>();
	return {
		outcomes: bySensor.outcomes,
		sound: bySensor.sound,
		of({ fault, place: at }, bin) {
			if (sign.byAnswers && place === GATEWAY && fault.at === 'module' && at !== GATEWAY) return null;
			const where = `${fault.at} ${at}`;
			const relation =
				relations.get(where) ?? relationOf({ kind: fault.at, place: at }, { kind: sign.about, place }, type);
			relations.set(where, relation);
			// What only some families can have says which its own wheel has.
			const families =
				fault.at === 'corner' && (sign.about !== 'corner' || at === place)
					? only(familiesAt(type, at), fault.sensors)
					: familiesOf(type, sign.about, place);
			return bySensor.shownBy(`${fault.id}/${faultClass(fault.at, at, type)}`, { bin, relation, families });
		}
	};
}
