import type { Group } from './codePack';

/** The chain of links that a code's group belongs to, and which of them the group points at. */
export interface SignalPath {
	links: readonly string[];
	/** Places in `links` that codes of this group name; the rest of the chain can still be the fault. */
	named: readonly number[];
}

const WHEEL = ['tyre', 'ring', 'gap', 'sensor', 'plug', 'lead', 'far plug', 'module in', 'module', 'bus'];
const SENSOR = ['mounting', 'sensor', 'plug', 'lead', 'far plug', 'module in', 'calibration'];
const BUS = ['sender', 'its feed', 'its branch', 'splice', 'segment', 'gateway', 'branch here', 'module'];
const ACTUATOR = ['fuse', 'feed', 'module', 'driver', 'lead', 'plug', 'coil, motor', 'ground'];
const LISTENER = ['wheel signals', 'brake control', 'bus', 'gateway', 'this module'];

export const PATHS: Record<Group, SignalPath> = {
	'wheel-speed': { links: WHEEL, named: [3, 4, 5, 6, 7] },
	'tone-ring': { links: WHEEL, named: [1, 2] },
	'vehicle-speed': { links: LISTENER, named: [0, 1, 2] },
	hydraulics: { links: ACTUATOR, named: [3, 4, 5, 6, 7] },
	pressure: { links: SENSOR, named: [1, 2, 3, 6] },
	'steering-angle': { links: ['alignment', 'column', ...SENSOR.slice(1)], named: [0, 2, 7] },
	yaw: { links: SENSOR, named: [0, 1, 6] },
	'brake-switch': {
		links: ['pedal', 'adjustment', 'switch', 'plug', 'lead', 'module in'],
		named: [1, 2, 3, 4]
	},
	'steering-assist': { links: ACTUATOR, named: [4, 5, 6] },
	tyre: {
		links: ['size', 'pressure', 'tread', 'circumference', 'configuration'],
		named: [0, 1, 2, 4]
	},
	lamp: { links: ['module', 'message', 'cluster', 'driver', 'lamp'], named: [3, 4] },
	supply: {
		links: ['battery', 'fuse', 'relay', 'splice', 'plug', 'module', 'ground point'],
		named: [0, 1, 3, 4, 6]
	},
	module: { links: ['feed', 'ground', 'module'], named: [2] },
	configuration: { links: ['vehicle number', 'coding', 'calibration', 'module'], named: [1] },
	network: { links: BUS, named: [0, 1, 2, 4, 6] },
	bus: {
		links: ['terminator', 'segment', 'splice', 'branch', 'module', 'terminator'],
		named: [0, 1, 2, 3, 5]
	}
};

const ROLLING =
	'Stands rated for the vehicle; nobody in the plane of a wheel that spins. On the road the driver watches the road, not the screen.';
const HYDRAULIC =
	'Pressure stays in some units with the engine off: discharge it by the maker’s procedure before anything is opened. Eye protection; only trained people.';
const RESTRAINT =
	'Restraint system: battery off and wait by the maker’s procedure. Never probe a restraint circuit.';
const BRAKES_ONLY =
	'No anti-lock, stability or hill functions until this is done: base brakes only. Say so to whoever moves the vehicle.';
const CODING = 'Battery support during coding; never interrupt the supply.';
const LAST = 'The maker’s procedure and local law come first; safety-critical work is for qualified people.';

const BY_GROUP: Partial<Record<Group, string>> = {
	'wheel-speed': ROLLING,
	'tone-ring': ROLLING,
	tyre: ROLLING,
	hydraulics: HYDRAULIC,
	pressure: HYDRAULIC,
	configuration: CODING
};

/** What can hurt while a code of this kind is worked on. */
export function cautionsFor(of: { group: Group; lamps: readonly string[]; driving: string }): string[] {
	const cautions = [BY_GROUP[of.group]];
	if (of.lamps.includes('restraint')) cautions.push(RESTRAINT);
	if (of.driving === 'base-brakes-only' || of.driving === 'do-not-drive') cautions.push(BRAKES_ONLY);
	const said = cautions.filter((caution) => caution !== undefined);
	return said.length > 0 ? [...said, LAST] : [];
}
