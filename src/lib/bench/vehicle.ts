import { type Position, type VehicleType } from '../../../library';
import { breakWheel, mendWheel, type BenchFault, type RepairAction } from './faults';
import { BrakeControl } from './modules/brakeControl';
import { Cluster, Gateway, SteeringAngle } from './modules/listeners';
import type { Module, World } from './modules/module';
import type { Lamp } from './modules/monitor';
import { answer, type Answer } from './modules/services';
import { Motion, type DriveLeg } from './motion';
import { GOOD_GAP_MM, GOOD_LEAD_OHMS } from './physics/wheelSensor';

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
	private key: 'off' | 'on' = 'off';
	private owedS = 0;

	constructor(options: BenchVehicleOptions) {
		const { type } = options;
		this.world = {
			timeS: 0,
			type,
			vin: options.vin,
			supplyVolts: 12.5,
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
		return this.key === 'on' || address === this.roles.get('gateway');
	}

	turnKey(to: 'off' | 'on'): void {
		if (to === this.key) return;
		this.key = to;
		if (to === 'off') {
			this.world.motion.stop();
			this.world.brakeMessage = null;
			return;
		}
		this.world.keyCycles += 1;
		for (const module of this.modules.values()) module.wake();
	}

	drive(legs: DriveLeg[]): boolean {
		if (this.key === 'off') return false;
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
			this.key === 'on' && cluster instanceof Cluster && cluster.awake && !this.silent.has(cluster.address);
		const selfCheck = lit && cluster.selfCheck;
		const asked = (lamp: Lamp) =>
			[...this.modules.values()].some((m) =>
				m.monitors.some((x) => x.wantsLamp && x.rule.lamps.includes(lamp))
			);
		return {
			key: this.key,
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
