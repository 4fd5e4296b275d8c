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
