import { type Position, type VehicleType } from '../../../library';
import { breakWheel, mendWheel, type BenchFault, type RepairAction } from './faults';
import { BrakeControl } from './modules/brakeControl';
import { Cluster, Gateway, SteeringAngle } from './modules/listeners';
import type { Module, World } from './modules/module';
import type { Lamp, MonitorMemory } from './modules/monitor';
import { answer, type Answer } from './modules/services';
import { Motion, type DriveLeg } from './motion';
import { GOOD_GAP_MM, GOOD_LEAD_OHMS, type WheelCircuit } from './physics/wheelSensor';

export interface BenchVehicleOptions {
	type: VehicleType;
	vin: string;
	odometerKm: number;
	faults: BenchFault[];
}

/** What the stand-in's control panel shows: the outside of the vehicle, as a person beside it sees it. */
export interface VehicleState {
	key: 'off' | 'on';
	timeS: number;
	speedKmh: number;
	odometerKm: number;
	driving: boolean;
	wheelsKmh: Record<Position, number>;
	lamps: Record<Lamp, boolean>;
	selfCheck: boolean;
}

/** All that a vehicle keeps while it stands: enough to take it out of the box tomorrow as it was left. */
export interface VehicleMemory {
	key: 'off' | 'on';
	keyCycles: number;
	odometerM: number;
	silent: number[];
	wheels: [Position, WheelCircuit][];
	monitors: [number, MonitorMemory[]][];
}

/** One simulation step: the cycle of the fastest module. */
export const STEP_S = 0.01;

const BUSY_REPEAT_REQUEST = 0x21;

/**
 * A whole vehicle: physics, modules, key and lamps, on its own clock. Nothing moves unless {@link advance} is called, so
 * the same calls always give the same vehicle.
 */
export class BenchVehicle {
	readonly world: World;
	readonly modules = new Map<number, Module>();
	private readonly roles = new Map<string, number>();
	private readonly silent = new Set<number>();
	private readonly busyUntilS = new Map<number, number>();
	private owedS = 0;

	constructor(options: BenchVehicleOptions) {
		const { type } = options;
		this.world = {
			timeS: 0,
			type,
			vin: options.vin,
			supplyVolts: 12.5,
			keyOn: false,
			motion: new Motion(options.odometerKm),
			wheels: new Map(
				type.wheels.map((wheel) => [
					wheel.position,
					{
						ringTeeth: wheel.ringTeeth,
						circumferenceM: wheel.circumferenceM,
						senseResistorOhms: type.senseResistorOhms,
						leadOhms: GOOD_LEAD_OHMS,
						gapMm: GOOD_GAP_MM,
						gapSwingMmAt100: 0,
						sensorWorks: true
					}
				])
			),
			steeringDeg: 0.4,
			keyCycles: 1200,
			brakeMessage: null
		};
		const make = {
			gateway: (address: number) => new Gateway(address),
			brake: (address: number) => new BrakeControl(address),
			'steering-angle': (address: number) => new SteeringAngle(address),
			cluster: (address: number) => new Cluster(address)
		};
		for (const { role, address } of type.modules) {
			const number = parseInt(address, 16);
			this.roles.set(role, number);
			this.modules.set(number, make[role](number));
		}
		for (const fault of options.faults) this.addFault(fault);
	}

	private addFault(fault: BenchFault): void {
		if (fault.kind === 'module-silent') {
			const address = this.roles.get(fault.role);
			if (address !== undefined) this.silent.add(address);
			return;
		}
		const circuit = this.world.wheels.get(fault.position);
		if (circuit) breakWheel(circuit, fault);
	}

	/** Moves the vehicle's clock on, in whole steps; what is left over is kept for the next call. */
	advance(seconds: number): void {
		this.owedS += seconds;
		while (this.owedS >= STEP_S - 1e-12) {
			this.owedS -= STEP_S;
			this.step();
		}
	}

	private step(): void {
		this.world.timeS += STEP_S;
		this.world.motion.step(STEP_S);
		for (const [address, module] of this.modules) {
			if (this.powered(address)) module.step(this.world, STEP_S);
		}
	}

	/** The gateway lives on permanent power; the rest goes with the key. A silent module has none at all. */
	private powered(address: number): boolean {
		if (this.silent.has(address)) return false;
		return this.world.keyOn || this.permanentPower(address);
	}

	private permanentPower(address: number): boolean {
		return address === this.roles.get('gateway');
	}

	turnKey(to: 'off' | 'on'): void {
		if ((to === 'on') === this.world.keyOn) return;
		this.world.keyOn = to === 'on';
		if (to === 'off') {
			this.world.motion.stop();
			this.world.brakeMessage = null;
			return;
		}
		this.world.keyCycles += 1;
		for (const [address, module] of this.modules) module.newCycle(this.permanentPower(address));
	}

	drive(legs: DriveLeg[]): boolean {
		if (!this.world.keyOn) return false;
		this.world.motion.drive(legs);
		return true;
	}

	spin(position: Position, kmh: number): boolean {
		return this.world.motion.spin(position, kmh);
	}

	mend(position: Position, action: RepairAction): void {
		const circuit = this.world.wheels.get(position);
		if (circuit) mendWheel(circuit, action);
	}

	/** What it keeps while it stands, as plain data. Motion is not kept: a vehicle taken out of the box stands. */
	get memory(): VehicleMemory {
		return structuredClone({
			key: this.world.keyOn ? 'on' : 'off',
			keyCycles: this.world.keyCycles,
			odometerM: this.world.motion.odometerM,
			silent: [...this.silent],
			wheels: [...this.world.wheels],
			monitors: [...this.modules].map(([address, module]) => [address, module.monitors.map((m) => m.memory)])
		} satisfies VehicleMemory);
	}

	/** Becomes the vehicle that {@link memory} was taken of. Codes that a module no longer has are passed over. */
	recall(memory: VehicleMemory): void {
		this.world.keyOn = memory.key === 'on';
		this.world.keyCycles = memory.keyCycles;
		this.world.motion.odometerM = memory.odometerM;
		this.silent.clear();
		for (const address of memory.silent) this.silent.add(address);
		for (const [position, circuit] of memory.wheels) this.world.wheels.set(position, { ...circuit });
		for (const [address, monitors] of memory.monitors) {
			for (const kept of monitors) {
				this.modules
					.get(address)
					?.monitors.find((m) => m.rule.dtc === kept.dtc)
					?.recall(kept);
			}
		}
	}

	/** Whether a module can be reached through the gateway at this moment. */
	reachable(address: number): boolean {
		const module = this.modules.get(address);
		return module !== undefined && this.powered(address) && module.awake;
	}

	/** One request to one module. Null where the gateway knows no such module or cannot reach it. */
	request(address: number, bytes: Uint8Array): Answer[] | null {
		const module = this.modules.get(address);
		if (!module || !this.reachable(address)) return null;
		if ((this.busyUntilS.get(address) ?? 0) > this.world.timeS) {
			return [{ afterS: 0, bytes: [0x7f, bytes[0] ?? 0, BUSY_REPEAT_REQUEST] }];
		}
		const answers = answer(bytes, module, this.world);
		const last = answers.at(-1);
		if (last && answers.length > 1) this.busyUntilS.set(address, this.world.timeS + last.afterS);
		return answers;
	}

	get state(): VehicleState {
		const { motion } = this.world;
		const cluster = this.modules.get(this.roles.get('cluster') ?? -1);
		const lit =
			this.world.keyOn && cluster instanceof Cluster && cluster.awake && !this.silent.has(cluster.address);
		const selfCheck = lit && cluster.selfCheck;
		const asked = (lamp: Lamp) =>
			[...this.modules.values()].some((m) =>
				m.monitors.some((x) => x.wantsLamp && x.rule.lamps.includes(lamp))
			);
		return {
			key: this.world.keyOn ? 'on' : 'off',
			timeS: this.world.timeS,
			speedKmh: motion.speedMps * 3.6,
			odometerKm: motion.odometerM / 1000,
			driving: motion.driving,
			wheelsKmh: motion.wheelsKmh(),
			lamps: {
				'anti-lock': lit && (selfCheck || asked('anti-lock')),
				stability: lit && (selfCheck || asked('stability'))
			},
			selfCheck
		};
	}
}
