import type { ModuleRole } from '../../../library';
import type { Activity } from './faults/activity';
import { applyFaults, BATTERY_VOLTS, type Target } from './faults/effects';
import { whoHearsWhom } from './physics/bus';
import { wheelReaderOf } from '../../../library/measurePoints';
import type { Solution, Supply, VehicleNetwork } from './physics/network';
import { coilOhms, soundSensor, wheelCircuit } from './physics/wheelCircuit';
import type { World } from './world';

const RUNNING_VOLTS = 14.1;
/** A coil that is so much warmer has another resistance worth a new solution. */
const COIL_STEP_C = 3;

export type ChangingSupply = Supply & { coilOhms: number[]; dead: Set<ModuleRole> };

/** What the supply is like before anything has happened. */
export const restingSupply = (wheels: number, coil: number): ChangingSupply => ({
	batteryVolts: BATTERY_VOLTS,
	keyOn: false,
	pedalPressed: false,
	coilOhms: Array.from({ length: wheels }, () => coil),
	dead: new Set()
});

/** Keeps the electrical state of a vehicle up to date, and solves it anew only when something has changed. */
export class Electrics {
	private coilC = NaN;

	constructor(
		private readonly world: World,
		private readonly network: VehicleNetwork,
		private readonly supply: ChangingSupply,
		private readonly target: Target,
		private readonly activity: Activity
	) {}

	/** Brings the electrical state up to date with faults, hands, key, pedal and temperature. */
	update(faultsChanged: boolean): void {
		const { world, supply, network } = this;
		if (faultsChanged) {
			applyFaults(this.target, this.activity.active);
			world.frameLoss = this.target.frameLoss;
			this.coilC = NaN;
		}
		const volts = world.engineRunning ? RUNNING_VOLTS : this.target.batteryVolts;
		const { pedal, hubC } = world.motion;
		if (volts !== supply.batteryVolts || world.keyOn !== supply.keyOn || pedal !== supply.pedalPressed) {
			supply.batteryVolts = volts;
			supply.keyOn = world.keyOn;
			supply.pedalPressed = pedal;
			network.touch();
		}
		if (
			world.wheels.some(({ family }) => family === 'passive') &&
			!(Math.abs(hubC - this.coilC) < COIL_STEP_C)
		) {
			this.coilC = hubC;
			for (const [i, { sensor }] of world.wheels.entries()) {
				supply.coilOhms[i] = sensor.works ? coilOhms(sensor.coilOhms20C, hubC) : 1e9;
			}
			network.touch();
		}
		const solution = network.solve(supply);
		if (solution !== world.solution || faultsChanged) this.take(solution);
	}

	take(solution: Solution): void {
		const { world } = this;
		world.solution = solution;
		world.hears = whoHearsWhom(world.type, solution);
		const reader = wheelReaderOf(world.type);
		if (!reader) return;
		for (const wheel of world.wheels) {
			const at = (sensor: typeof wheel.sensor, side?: 'harness') =>
				wheelCircuit(world.type, reader, wheel.position, sensor, solution, side);
			wheel.circuit = wheel.substitute ? at(soundSensor(world.scatter), 'harness') : at(wheel.sensor);
		}
	}

	/** Resistance of a wheel's passive sensor, as warm as it is. */
	coilOhmsOf(wheel: number): number {
		return this.supply.coilOhms[wheel] ?? 1000;
	}
}
