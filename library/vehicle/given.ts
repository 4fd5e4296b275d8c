import { z } from 'zod';
import { Harness } from '../harness';
import { Position } from '../positions';
import { WHEEL_SENSORS } from '../sensorKinds';
import { BRAKES, Chassis, FullDescription, Module, ModuleRole, ParkingBrake, Wheel } from './vehicleType';

/** What a person, a file or a reading of the vehicle has given of it. Nothing but the wheels is required. */

export const TEMPLATES = [
	'car',
	'van',
	'light-truck',
	'four-wheel-drive',
	'electric',
	'motorcycle',
	'trailer',
	'lamp-only'
] as const;
export type Template = (typeof TEMPLATES)[number];

export const Given = z.strictObject({
	...FullDescription.partial().shape,
	/** The kind of vehicle by which all that is not given is filled in. */
	template: z.enum(TEMPLATES).optional(),
	version: FullDescription.shape.version.unwrap().optional(),
	tells: z.enum(['link', 'lamp']).optional(),
	volts: z.union([z.literal(12), z.literal(24)]).optional(),
	highVoltage: z.boolean().optional(),
	assumed: FullDescription.shape.assumed.optional(),
	sensor: z.enum(WHEEL_SENSORS).optional(),
	chassis: Chassis.partial().optional(),
	brakes: z.enum(BRAKES).optional(),
	parkingBrake: ParkingBrake.optional(),
	modules: z
		.array(
			z.strictObject({
				...Module.partial().shape,
				role: ModuleRole,
				work: Module.shape.work.unwrap().optional(),
				near: Module.shape.near.unwrap().optional()
			})
		)
		.min(1)
		.max(ModuleRole.options.length)
		.optional(),
	wheels: z
		.array(z.strictObject({ ...Wheel.partial().shape, position: Position }))
		.min(1)
		.max(12),
	harness: Harness.optional()
});
export type Given = z.infer<typeof Given>;

/** The published schema of a vehicle description, as text. */
export const vehicleSchemaText = (): string =>
	`${JSON.stringify(
		{
			$id: 'vehicle.schema.json',
			title: 'Description of a vehicle: nothing but its wheels is required',
			...z.toJSONSchema(Given, { io: 'input' })
		},
		null,
		'\t'
	)}\n`;
