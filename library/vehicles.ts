import { z } from 'zod';
import { FullDescription, vehicleTypeOf } from './vehicle/vehicleType';
import marlow from './vehicles/brindle-marlow-16.json' with { type: 'json' };
import drover from './vehicles/hexley-drover.json' with { type: 'json' };
import heath from './vehicles/norvane-heath.json' with { type: 'json' };
import lichen from './vehicles/norvane-lichen.json' with { type: 'json' };
import pip from './vehicles/ottaro-pip.json' with { type: 'json' };
import wold from './vehicles/norvane-wold.json' with { type: 'json' };
import skiff from './vehicles/velmora-skiff.json' with { type: 'json' };

export { ModuleRole, type ModuleType, type VehicleType, type WheelType } from './vehicle/vehicleType';
export { SENSOR_KINDS, type SensorKind } from './sensorKinds';

/** The vehicle types of the demo makers, by id, checked the moment they are loaded. */
export const vehicleTypes = new Map(
	z
		.array(FullDescription)
		.parse([marlow, lichen, skiff, pip, heath, drover, wold])
		.map((type) => [type.id, vehicleTypeOf(type)])
);

/** Those that a tester can talk to. */
export const linkTypes = [...vehicleTypes.values()].filter(({ tells }) => tells === 'link');
