import { z } from 'zod';
import { Harness, suppliesOf, type Supply } from '../harness';
import { parsePair } from '../../src/lib/core/bus/diagnosticPair';
import { Position } from '../positions';
import { WHEEL_SENSORS, type WheelSensor } from '../sensorKinds';

/** How a vehicle is described once all of it is filled in: what every station works with. */

export const MODULE_ROLES = [
	'gateway',
	'brake',
	'steering-angle',
	'yaw',
	'power-steering',
	'park-brake',
	'cluster',
	'restraint',
	'engine',
	'trailer-brake'
] as const;
export const ModuleRole = z.enum(MODULE_ROLES);
export type ModuleRole = z.infer<typeof ModuleRole>;

const MOST_PINS = 200;
const words = z.string().trim().min(1).max(120);
const Minutes = z.number().nonnegative().max(600);
/** A logical address of its network: two bytes of ISO 13400-2, or fewer on CAN. */
export const Address = z.string().regex(/^[0-9A-F]{4}$/, 'four hex digits in upper case');

const CAN_EXPECTED = 'two identifiers of 3 or of 8 hex digits, such as 7E0:7E8';

export const Chassis = z.strictObject({
	wheelbaseM: z.number().positive().max(12),
	trackM: z.number().nonnegative().max(3),
	/** Degrees at the steering wheel for one at the road wheels. */
	steeringRatio: z.number().positive().max(40),
	drive: z.enum(['front', 'rear', 'all', 'none'])
});
/** What sets the parking brake, and at which axles. */
export const ParkingBrake = z.strictObject({
	by: z.enum(['motor', 'hand']),
	axles: z.array(z.number().int().positive().max(6)).min(1).max(6)
});
export const Module = z.strictObject({
	role: ModuleRole,
	name: words,
	/** `maker-procedure-only`: nobody here tests, moves, unplugs or measures anything at it or at its own wiring. */
	work: z.enum(['open', 'maker-procedure-only']).default('open'),
	/** What is in the way to it and can hurt. */
	near: z
		.array(z.enum(['steering-wheel-airbag']))
		.max(1)
		.default([]),
	/** By what a case knows it; where nothing else is told, also where it answers. */
	address: Address,
	/** Its logical address on the vehicle's network (ISO 13400-2), where that is another. */
	doip: Address.optional(),
	/** Identifiers on CAN that it is asked on and answers on, where its address does not say them. */
	can: z
		.string()
		.regex(/^([0-9A-F]{3}:[0-9A-F]{3}|[0-9A-F]{8}:[0-9A-F]{8})$/, CAN_EXPECTED)
		.refine((text) => parsePair(text).ok, CAN_EXPECTED)
		.optional(),
	segment: words,
	/** Minutes until its plug can be reached. */
	accessMin: Minutes,
	/** Current it draws at 12.5 V when awake. */
	drawsA: z.number().positive().max(200),
	/** What each pin is for. */
	pins: z
		.record(z.string().min(1).max(60), z.string().min(1).max(60))
		.refine((pins) => Object.keys(pins).length <= MOST_PINS, { error: `at most ${MOST_PINS} pins` })
});
export const Wheel = z.strictObject({
	position: Position,
	axle: z.number().int().positive().max(6),
	side: z.enum(['left', 'right', 'middle']),
	/** Forward of the rear axle's middle. */
	xM: z.number().min(-30).max(30),
	/** To the left of the middle. */
	yM: z.number().min(-3).max(3),
	driven: z.boolean(),
	steered: z.boolean(),
	ringTeeth: z.number().int().min(8).max(400),
	circumferenceM: z
		.number()
		.min(0.5, 'metres are expected, 0.5 or more')
		.max(6, 'metres are expected, 6 at the most: 1.95, not 1950'),
	gapMm: z.number().positive().max(10),
	/** Family of its wheel speed sensor, where it is not the vehicle's usual one. */
	sensor: z.enum(WHEEL_SENSORS).optional()
});

/** What presses the brakes of a vehicle: fluid or cables, or compressed air. */
export const BRAKES = ['hydraulic', 'air'] as const;

export const FullDescription = z.strictObject({
	id: z.string().regex(/^[a-z0-9]([a-z0-9-]{0,78}[a-z0-9])?$/, 'small letters, digits and hyphens'),
	/** A description that was corrected is a new version; a case keeps the one it was worked with. */
	version: z.number().int().positive().max(100_000).default(1),
	maker: z.string().trim().max(80),
	model: words,
	use: z.string().trim().max(120),
	/** How it tells its codes: to a tester on its link, or by a lamp that flashes. */
	tells: z.enum(['link', 'lamp']).default('link'),
	/** Rated voltage of its supply. */
	volts: z.union([z.literal(12), z.literal(24)]).default(12),
	gateway: Address,
	chassis: Chassis,
	/** A system above 60 V: only people qualified for it make it safe. */
	highVoltage: z.boolean().default(false),
	/** What presses its brakes. */
	brakes: z.enum(BRAKES).default('hydraulic'),
	parkingBrake: ParkingBrake,
	/** Family of its wheel speed sensors. */
	sensor: z.enum(WHEEL_SENSORS),
	senseResistorOhms: z.number().positive().max(10_000),
	modules: z.array(Module).min(1).max(MODULE_ROLES.length),
	wheels: z.array(Wheel).min(1).max(12),
	harness: Harness,
	/** Paths of what is usual on such a vehicle and was not looked up or seen on this one. */
	assumed: z.array(z.string().min(1).max(260)).max(5000).default([])
});
export type Described = z.infer<typeof FullDescription>;
export type ModuleType = Described['modules'][number] & { suppliedBy: Supply[] };
export type WheelType = Described['wheels'][number] & { sensor: WheelSensor };
export type VehicleType = Omit<Described, 'modules' | 'wheels' | 'sensor'> & {
	modules: ModuleType[];
	wheels: WheelType[];
};

/** What a module hangs on is not written down a second time: it is read off the conductors. */
export function vehicleTypeOf({ sensor: usual, ...type }: Described): VehicleType {
	const modules = type.modules.map((module) => {
		const segments = module.role === 'gateway' ? [] : [module.segment];
		return { ...module, suppliedBy: suppliesOf(type.harness, module.role, module.pins, segments) };
	});
	const wheels = type.wheels.map((wheel) => ({ ...wheel, sensor: wheel.sensor ?? usual }));
	return { ...type, modules, wheels };
}

/**
 * A vehicle as it would be written down. What hangs on what is read off the wires; a family is written at each wheel.
 */
export const descriptionOf = ({ modules, ...type }: VehicleType): Described => ({
	...type,
	sensor: 'unknown',
	modules: modules.map(({ suppliedBy: _, ...module }) => module)
});

/** What says that two types are the same in all that is reasoned about. */
export const typeKey = ({ id, version, wheels }: VehicleType): string =>
	[`${id}/${version}`, ...wheels.map(({ sensor }) => sensor)].join(' ');

/** What a vehicle is called: "Ottaro Pip", "white saloon". */
export const vehicleName = ({ maker, model }: Pick<VehicleType, 'maker' | 'model'>): string =>
	[maker, model].filter(Boolean).join(' ');
