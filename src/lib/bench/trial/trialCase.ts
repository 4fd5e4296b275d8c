import { linkTypes, type VehicleType } from '../../../../library';
import { placesFor } from '../../../../library/faultPlaces';
import { faults, mayComeAndGo, type Fault } from '../../../../library/faults';
import { libraryWeight } from '../../../../library/reason/odds';
import { withDrawnFamilies } from '../../../../library/wheelSensors';
import type { BenchFault } from '../faults/benchFault';

/** One vehicle that comes in, with what is wrong with it. */
export interface TrialCase {
	/** As it is known when it comes in. */
	type: VehicleType;
	/** As it is: where nobody knows what its sensors are, they are something all the same. */
	built: VehicleType;
	faults: BenchFault[];
	seed: number;
}

/** How often two things are wrong at once. */
const TWO = 0.04;
const SLIGHTEST = 0.15;
/** How often a fault that could be there all the time comes and goes. */
const COMES_AND_GOES = 0.12;

/**
 * Draws a vehicle and its faults, each fault as often as the library holds it likely.
 *
 * @param random from 0 up to 1
 * @param described the vehicle that they all are; one of the shipped types where absent
 */
export function drawCase(seed: number, random: () => number, described?: VehicleType): TrialCase {
	const type = described ?? (linkTypes[Math.floor(random() * linkTypes.length)] as VehicleType);
	const built = withDrawnFamilies(type, random);
	const count = random() < TWO ? 2 : 1;
	const drawn: BenchFault[] = [];
	while (drawn.length < count) {
		const fault = drawFault(built, random);
		const places = placesFor(fault, built);
		const at = places[Math.floor(random() * places.length)] as string;
		if (drawn.some((one) => one.id === fault.id && one.at === at)) continue;
		drawn.push({
			id: fault.id,
			at,
			severity: SLIGHTEST + random() * (1 - SLIGHTEST),
			everyKm: mayComeAndGo(fault) && random() < COMES_AND_GOES ? 1 + random() * 5 : null
		});
	}
	return { type, built, faults: drawn, seed };
}

function drawFault(type: VehicleType, random: () => number): Fault {
	const possible = [...faults.values()].flatMap((fault) => {
		const places = placesFor(fault, type).length;
		return places > 0 ? [{ fault, weight: libraryWeight(fault.id) * Math.sqrt(places) }] : [];
	});
	const total = possible.reduce((sum, { weight }) => sum + weight, 0);
	let left = random() * total;
	for (const { fault, weight } of possible) {
		left -= weight;
		if (left <= 0) return fault;
	}
	return possible.at(-1)?.fault as Fault;
}
