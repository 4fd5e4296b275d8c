import { z } from 'zod';
import { suppliesOf, Harness, type Supply } from './harness';
import { Position } from './positions';
import { SENSOR_KINDS, type SensorKind } from './sensorKinds';
import { WHEEL_SENSORS, type WheelSensor } from './wheelSensors';
import marlow from './vehicles/brindle-marlow-16.json' with { type: 'json' };
import drover from './vehicles/hexley-drover.json' with { type: 'json' };
import heath from './vehicles/norvane-heath.json' with { type: 'json' };
import lichen from './vehicles/norvane-lichen.json' with { type: 'json' };
import pip from './vehicles/ottaro-pip.json' with { type: 'json' };
import wold from './vehicles/norvane-wold.json' with { type: 'json' };
import skiff from './vehicles/velmora-skiff.json' with { type: 'json' };

const Address = z.string().regex(/^[0-9A-F]{4}$/);

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

export { SENSOR_KINDS, type SensorKind };

const VehicleType = z.object({
	id: z.string(),
	maker: z.string(),
	model: z.string(),
	use: z.string(),
	/** How it tells its codes: to a tester on its link, or by a lamp that flashes. */
	tells: z.enum(['link', 'lamp']).default('link'),
	gateway: Address,
	chassis: z.object({
		wheelbaseM: z.number().positive(),
		trackM: z.number().positive(),
		/** Degrees at the steering wheel for one at the road wheels. */
		steeringRatio: z.number().positive(),
		drive: z.enum(['front', 'rear', 'all', 'none'])
	}),
	/** A system above 60 V: only people qualified for it make it safe. */
	highVoltage: z.boolean().default(false),
	/** What sets the parking brake, and at which axles. */
	parkingBrake: z.object({
		by: z.enum(['motor', 'hand']),
		axles: z.array(z.number().int().positive()).min(1)
	}),
	/** Family of its wheel speed sensors. */
	sensor: z.enum(WHEEL_SENSORS),
	senseResistorOhms: z.number().positive(),
	modules: z
		.array(
			z.object({
				role: ModuleRole,
				name: z.string(),
				/** `maker-procedure-only`: nobody here tests, moves, unplugs or measures anything at it or at its own wiring. */
				work: z.enum(['open', 'maker-procedure-only']).default('open'),
				/** What is in the way to it and can hurt. */
				near: z.array(z.enum(['steering-wheel-airbag'])).default([]),
				address: Address,
				segment: z.string(),
				/** Minutes until its plug can be reached. */
				accessMin: z.number().nonnegative(),
				/** Current it draws at 12.5 V when awake. */
				drawsA: z.number().positive(),
				/** What each pin is for. */
				pins: z.record(z.string(), z.string())
			})
		)
		.min(1),
	wheels: z.array(
		z.object({
			position: Position,
			axle: z.number().int().positive(),
			side: z.enum(['left', 'right']),
			/** Forward of the rear axle's middle. */
			xM: z.number(),
			/** To the left of the middle. */
			yM: z.number(),
			driven: z.boolean(),
			steered: z.boolean(),
			ringTeeth: z.number().int().positive(),
			circumferenceM: z.number().positive(),
			gapMm: z.number().positive(),
			/** Family of its wheel speed sensor, where it is not the vehicle's usual one. */
			sensor: z.enum(WHEEL_SENSORS).optional()
		})
	),
	harness: Harness
});
type Described = z.infer<typeof VehicleType>;
export type ModuleType = Described['modules'][number] & { suppliedBy: Supply[] };
export type WheelType = Described['wheels'][number] & { sensor: WheelSensor };
export type VehicleType = Omit<Described, 'modules' | 'wheels' | 'sensor'> & {
	modules: ModuleType[];
	wheels: WheelType[];
};

/** What a module hangs on is not written down a second time: it is read off the conductors. */
function withHangers({ sensor: usual, ...type }: Described): VehicleType {
	const modules = type.modules.map((module) => {
		const segments = module.role === 'gateway' ? [] : [module.segment];
		return { ...module, suppliedBy: suppliesOf(type.harness, module.role, module.pins, segments) };
	});
	const wheels = type.wheels.map((wheel) => ({ ...wheel, sensor: wheel.sensor ?? usual }));
	return { ...type, modules, wheels };
}

/** The vehicle types of the demo makers, by id, checked the moment they are loaded. */
export const vehicleTypes = new Map(
	z
		.array(VehicleType)
		.parse([marlow, lichen, skiff, pip, heath, drover, wold])
		.map((type) => [type.id, withHangers(type)])
);

/** Those that a tester can talk to. */
export const linkTypes = [...vehicleTypes.values()].filter(({ tells }) => tells === 'link');
