import { linkTypes, type VehicleType } from '../../../../library';
import { placesFor } from '../../../../library/faultPlaces';
import { faults, mayComeAndGo, type Fault } from '../../../../library/faults';
import { libraryWeight } from '../../../../library/reason/odds';
import { systemOf, type System } from '../../../../library/systems';
import { withDrawnFamilies } from '../../../../library/wheelSensors';
import type { BenchFault } from '../faults/benchFault';
import { undescribed } from '../faults/undescribed';
import { drawScatter, type Scatter } from '../physics/scatter';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';

/** One vehicle that comes in, with what is wrong with it. */
export interface TrialCase {
	/** As it is known when it comes in. */
	type: VehicleType;
	/** As it is: where nobody knows what its sensors are, they are something all the same. */
	built: VehicleType;
	faults: BenchFault[];
	seed: number;
	/** How its physics differs from what is usual for its type. */
	scatter?: Scatter;
}

/** What vehicles are drawn from. */
export interface Draw {
	/** Each fault as often as the library holds it likely, or every fault at every place equally. */
	by: 'odds' | 'uniform';
	/** Share of vehicles with two faults. */
	doubles: number;
	/** Share of vehicles with a fault that the library does not describe. */
	unknown: number;
	/** Faults of one system alone; null = all. */
	system: System | null;
}

/** How often two things are wrong at once. */
const TWO = 0.04;
export const USUAL_DRAW: Draw = { by: 'odds', doubles: TWO, unknown: 0, system: null };
const SLIGHTEST = 0.15;
/** How often a fault that could be there all the time comes and goes. */
const COMES_AND_GOES = 0.12;
const MOST_TRIES = 1000;

/**
 * Draws a vehicle and its faults.
 *
 * @param random from 0 up to 1
 * @param described the vehicle that they all are; one of the shipped types where absent
 */
export function drawCase(
	seed: number,
	random: () => number,
	described?: VehicleType,
	draw: Draw = USUAL_DRAW
): TrialCase {
	const type = described ?? (linkTypes[Math.floor(random() * linkTypes.length)] as VehicleType);
	const built = withDrawnFamilies(type, random);
	const count = random() < draw.doubles ? 2 : 1;
	// Without a share of unknown ones nothing more is drawn: the same seed gives the same vehicles.
	const isUnknown = draw.unknown > 0 && random() < draw.unknown;
	const drawn: BenchFault[] = [];
	for (let tries = 0; drawn.length < count && tries < MOST_TRIES; tries++) {
		const from = isUnknown && drawn.length === 0 ? undescribed : faults;
		const one = drawFault(from, built, random, draw);
		if (one && !drawn.some(({ id, at }) => id === one.id && at === one.at)) drawn.push(one);
	}
	return { type, built, faults: drawn, seed };
}

/** The same vehicle with the tolerances of its parts, drawn apart from everything else. @param share see {@link drawScatter} */
export const scattered = (one: TrialCase, share: number): TrialCase =>
	share > 0 ? { ...one, scatter: drawScatter(share, uniform(mixedSeed(one.seed + 3))) } : one;

function drawFault(
	from: ReadonlyMap<string, Fault>,
	type: VehicleType,
	random: () => number,
	{ by, system }: Draw
): BenchFault | null {
	const possible = [...from.values()].flatMap((fault) => {
		const places = placesFor(fault, type);
		if (places.length === 0 || (system !== null && systemOf(fault) !== system)) return [];
		const weight = by === 'uniform' ? places.length : libraryWeight(fault.id) * Math.sqrt(places.length);
		return [{ fault, places, weight }];
	});
	const total = possible.reduce((sum, { weight }) => sum + weight, 0);
	let left = random() * total;
	const chosen = possible.find(({ weight }) => (left -= weight) <= 0) ?? possible.at(-1);
	if (!chosen) return null;
	const { fault, places } = chosen;
	return {
		id: fault.id,
		at: places[Math.floor(random() * places.length)] as string,
		severity: SLIGHTEST + random() * (1 - SLIGHTEST),
		everyKm: mayComeAndGo(fault) && random() < COMES_AND_GOES ? 1 + random() * 5 : null
	};
}

/** Whether a vehicle has something that the library does not describe. */
export const isUnknown = ({ faults: list }: TrialCase): boolean => list.some(({ id }) => undescribed.has(id));
