import type { ModuleRole, ModuleType, VehicleType } from '../../../../library';
import type { Wheel } from '../world';
import { BrakeControl } from './brakeControl';
import { listeningWatches, ownWatches } from './listening';
import type { Module } from './module';
import type { Lamp } from './monitor';
import { Cluster } from './cluster';
import { Engine, ParkBrake, PowerSteering, Restraint } from './drivetrain';
import { Gateway } from './gateway';
import { SteeringAngle, YawCluster } from './motionSensors';
import { PedalBrake } from './pedalBrake';
import { TrailerBrake } from './trailerBrake';

/** Lamps that a module asks for when it has a fault inside. */
const OWN_LAMPS: Partial<Record<ModuleRole, Lamp[]>> = {
	'steering-angle': ['stability'],
	yaw: ['stability'],
	'power-steering': ['steering'],
	'park-brake': ['brake'],
	restraint: ['restraint'],
	engine: ['engine']
};

/** The modules of a vehicle, each with what it watches of itself and of those it listens to. */
export function makeModules(vehicle: VehicleType, wheels: readonly Wheel[]): Module[] {
	const make: Record<ModuleRole, (type: ModuleType) => Module> = {
		gateway: (type) => new Gateway(type),
		brake: (type) =>
			vehicle.tells === 'lamp'
				? new PedalBrake(type, vehicle, wheels)
				: new BrakeControl(type, vehicle, wheels),
		'steering-angle': (type) => new SteeringAngle(type),
		yaw: (type) => new YawCluster(type),
		'power-steering': (type) => new PowerSteering(type),
		'park-brake': (type) => new ParkBrake(type),
		cluster: (type) => new Cluster(type),
		restraint: (type) => new Restraint(type),
		engine: (type) => new Engine(type),
		'trailer-brake': (type) => new TrailerBrake(type, vehicle, wheels)
	};
	const roles = new Set(vehicle.modules.map((module) => module.role));
	return vehicle.modules.map((type) => {
		const module = make[type.role](type);
		module.watch(...listeningWatches(module, roles));
		// Brake control has judgements of its own about itself.
		if (type.role !== 'brake' && type.role !== 'trailer-brake') {
			module.watch(...ownWatches(module, OWN_LAMPS[type.role] ?? []));
		}
		return module;
	});
}
