import type { ModuleRole, Position, SensorKind, VehicleType, WheelType } from '../../../library';
import type { Messages } from './modules/messages';
import type { Motion } from './motion';
import type { Rails } from './physics/internals';
import type { Solution } from './physics/network';
import type { Scatter } from './physics/scatter';
import { soundRing, type Passing, type Ring, type Rotor } from './physics/ring';
import { soundSensor, type Sensor, type WheelCircuit } from './physics/wheelCircuit';

/** One wheel of the vehicle with all that stands between the road and the plug of its sensor. */
export interface Wheel {
	type: WheelType;
	position: Position;
	/** Of the sensor that is on it. */
	family: SensorKind;
	ring: Ring;
	sensor: Sensor;
	/** Rolling circumference of the tyre that is on it. */
	circumferenceM: number;
	/** Share of the road's grip that its tyre has. */
	gripShare: number;
	/** What is connected to its harness in place of its sensor. */
	substitute: Substitute | null;
	/** Steel that is being passed before the sensor by hand. */
	steel: { left: number; phase: number } | null;
	rotor: Rotor;
	/** What passed in this step. */
	passing: Passing;
	circuit: WheelCircuit | null;
}

/** A signal at the open plug of a sensor: from a generator, or from the sensor of another wheel by jumper leads. */
export type Substitute =
	| {
			kind: 'generator';
			hertz: number;
			/** Peak, where the input is for a passive sensor; current levels are set by the generator otherwise. */
			volts: number;
			phase: number;
	  }
	| { kind: 'mate'; wheel: number };

/** Quantities that sensors without a ring measure. */
export type SenseName = 'steering-angle' | 'yaw-rate' | 'lateral' | 'pressure';

/** What a sensor makes of its quantity: reading = truth · scale + offset, or always the same. */
export interface Sense {
	offset: number;
	scale: number;
	stuckAt: number | null;
}

export const soundSense = (): Sense => ({ offset: 0, scale: 1, stuckAt: null });

export const reading = ({ offset, scale, stuckAt }: Sense, truth: number): number =>
	stuckAt ?? truth * scale + offset;

/** What modules can sense of the vehicle around them. */
export interface World {
	timeS: number;
	readonly type: VehicleType;
	vin: string;
	keyOn: boolean;
	keyCycles: number;
	readonly motion: Motion;
	readonly wheels: readonly Wheel[];
	readonly senses: Record<SenseName, Sense>;
	readonly messages: Messages;
	/** Who hears whom, `hears[receiver][sender]` in the order of the type's modules. */
	hears: readonly (readonly boolean[])[];
	solution: Solution;
	/** Draws a number from 0 up to 1 from the vehicle's own seed. */
	random: () => number;
	/** Share of frames that the bus destroys. */
	frameLoss: number;
	/** Roles with a fault of their own inside. */
	readonly internalFaults: ReadonlySet<ModuleRole>;
	engineRunning: boolean;
	readonly scatter: Scatter;
}

export const railsOf = (world: World, role: ModuleRole): Rails =>
	world.solution.rails.get(role) ?? { supply: 0, ground: 0, works: false };

/** Volts a module has between its pins. */
export function supplyVolts(world: World, role: ModuleRole): number {
	const { supply, ground } = railsOf(world, role);
	return supply - ground;
}

export function soundWheel(type: WheelType, family: SensorKind, rotor: Rotor, scatter: Scatter): Wheel {
	return {
		type,
		position: type.position,
		family,
		ring: soundRing(type.ringTeeth, type.gapMm, scatter),
		sensor: soundSensor(scatter),
		circumferenceM: type.circumferenceM,
		gripShare: 1,
		substitute: null,
		steel: null,
		rotor,
		passing: { pulses: 0, lastAgoS: 0 },
		circuit: null
	};
}
