import type { Position } from '../positions';
import type { Given, Template } from './given';
import type { Described, ModuleRole } from './vehicleType';

/** What is usual on a kind of vehicle: trade practice, never one maker's data. Whoever knows better says so. */

type ModuleDescribed = Described['modules'][number];
type UsualModule = Omit<ModuleDescribed, 'pins' | 'role'>;
const CHASSIS_BUS = 'chassis bus';
const DRIVE_BUS = 'drive bus';

/** Addresses are placeholders until the vehicle has told its own. */
const MODULES: Record<ModuleRole, UsualModule> = {
	gateway: usual('Gateway', '0010', 15, 0.25),
	brake: usual('Brake control', '0028', 25, 0.9),
	'steering-angle': { ...usual('Steering angle', '0030', 20, 0.1), near: ['steering-wheel-airbag'] },
	yaw: usual('Yaw and lateral sensor', '0038', 15, 0.08),
	'power-steering': usual('Power steering', '0040', 30, 1.2),
	'park-brake': usual('Parking brake', '0048', 25, 0.4),
	cluster: usual('Instrument cluster', '0060', 15, 0.6),
	restraint: {
		...usual('Restraint control', '0058', 15, 0.3, DRIVE_BUS),
		work: 'maker-procedure-only'
	},
	engine: usual('Engine control', '0008', 10, 1.1, DRIVE_BUS),
	'trailer-brake': usual('Trailer brake control', '0070', 20, 0.7)
};

function usual(
	name: string,
	address: string,
	accessMin: number,
	drawsA: number,
	segment = CHASSIS_BUS
): UsualModule {
	return { name, address, segment, accessMin, drawsA, work: 'open', near: [] };
}

const CAR: ModuleRole[] = [
	'gateway',
	'brake',
	'steering-angle',
	'yaw',
	'power-steering',
	'cluster',
	'restraint',
	'engine'
];

interface Usual {
	model: string;
	modules: readonly ModuleRole[];
	/** By axle, from the front. */
	wheels: readonly (readonly Position[])[];
	drive: Described['chassis']['drive'];
	wheelbaseM: number;
	trackM: number;
	steeringRatio: number;
	circumferenceM: number;
	parkingBrake: 'motor' | 'hand';
	brakes: Described['brakes'];
}

const car = {
	model: 'car',
	modules: CAR,
	wheels: [
		['front-left', 'front-right'],
		['rear-left', 'rear-right']
	],
	drive: 'front',
	wheelbaseM: 2.65,
	trackM: 1.53,
	steeringRatio: 15.5,
	circumferenceM: 1.95,
	parkingBrake: 'hand',
	brakes: 'hydraulic'
} as const satisfies Usual;

export const USUAL: Record<Template, Usual> = {
	car,
	van: { ...car, model: 'van', wheelbaseM: 3.3, trackM: 1.65, circumferenceM: 2.1 },
	'light-truck': {
		...car,
		model: 'light truck',
		drive: 'rear',
		wheelbaseM: 3.7,
		trackM: 1.7,
		steeringRatio: 18,
		circumferenceM: 2.25
	},
	'four-wheel-drive': {
		...car,
		model: 'four-wheel drive',
		drive: 'all',
		wheelbaseM: 2.8,
		trackM: 1.6,
		circumferenceM: 2.2
	},
	electric: { ...car, model: 'electric car', modules: [...CAR, 'park-brake'], parkingBrake: 'motor' },
	motorcycle: {
		...car,
		model: 'motorcycle',
		modules: ['gateway', 'brake', 'cluster', 'engine'],
		wheels: [['front-wheel'], ['rear-wheel']],
		drive: 'rear',
		wheelbaseM: 1.45,
		trackM: 0,
		steeringRatio: 1
	},
	trailer: {
		...car,
		model: 'trailer',
		modules: ['gateway', 'trailer-brake'],
		wheels: [
			['axle1-left', 'axle1-right'],
			['axle2-left', 'axle2-right'],
			['axle3-left', 'axle3-right']
		],
		drive: 'none',
		brakes: 'air',
		wheelbaseM: 6,
		trackM: 2,
		circumferenceM: 2.3
	},
	'lamp-only': {
		...car,
		model: 'vehicle that tells by its lamp',
		modules: ['brake'],
		drive: 'rear',
		steeringRatio: 18
	}
};

/** Axles one behind the other of a trailer stand this far apart, metres. */
const BOGIE_M = 1.3;
const USUAL_TEETH = 48;
const USUAL_GAP_MM = 0.9;

/** What is usual of a module; its pins follow from what hangs on it. */
export function usualModule(role: ModuleRole, template: Template): UsualModule {
	const own = MODULES[role];
	if (template === 'lamp-only') return { ...own, name: 'Anti-lock control', segment: 'none' };
	if (template === 'trailer')
		return { ...own, segment: 'trailer bus', ...(role === 'gateway' ? { name: 'Drawbar gateway' } : {}) };
	if (template === 'motorcycle')
		return { ...own, segment: CHASSIS_BUS, ...(role === 'gateway' ? { name: 'Body control' } : {}) };
	if (template === 'electric' && role === 'engine') return { ...own, name: 'Drive motor control' };
	return own;
}

/** What is usual of a wheel at a position. */
export function usualWheel(
	position: Position,
	{ template, drive }: { template: Template; drive: Usual['drive'] }
): Omit<Described['wheels'][number], 'sensor'> {
	const { wheels, wheelbaseM, trackM, circumferenceM } = USUAL[template];
	const [axleName = '', side = ''] = position.split('-');
	const axle = axleName.startsWith('axle') ? Number(axleName.slice(4)) : axleName === 'front' ? 1 : 2;
	const isFront = axleName === 'front';
	return {
		position,
		axle,
		side: side === 'left' || side === 'right' ? side : 'middle',
		xM: axleName.startsWith('axle') ? BOGIE_M * ((wheels.length + 1) / 2 - axle) : isFront ? wheelbaseM : 0,
		yM: side === 'left' ? trackM / 2 : side === 'right' ? -trackM / 2 : 0,
		driven: drive === 'all' || drive === axleName,
		steered: isFront,
		ringTeeth: USUAL_TEETH,
		circumferenceM,
		gapMm: USUAL_GAP_MM
	};
}

/** The kind of vehicle that a set of wheels looks like. */
export function templateOf({ template, wheels, tells, highVoltage }: Given): Template {
	if (template) return template;
	if (wheels.some(({ position }) => position.startsWith('axle'))) return 'trailer';
	if (wheels.some(({ position }) => position.endsWith('-wheel'))) return 'motorcycle';
	return tells === 'lamp' ? 'lamp-only' : highVoltage ? 'electric' : 'car';
}
