import { likeliestFamilyAt } from '../../../library/wheelSensors';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { ModuleRole, VehicleType } from '../../../library';
import { Electrics, restingSupply } from './electrics';
import { Activity, type Disturbance } from './faults/activity';
import type { BenchFault } from './faults/benchFault';
import { applyOnce, BATTERY_VOLTS, type Target } from './faults/effects';
import { makeModules } from './modules/makeModules';
import { Messages } from './modules/messages';
import type { Module } from './modules/module';
import { TrailerBrake } from './modules/trailerBrake';
import { answer, type Answer } from './modules/services/answer';
import type { VehicleMemory } from './memory';
import { Motion, type DriveLeg } from './motion';
import { nodeVolts, VehicleNetwork } from './physics/network';
import { repair } from './repairing';
import { Rotor } from './physics/ring';
import { NO_SCATTER, type Scatter } from './physics/scatter';
import { soundSensor } from './physics/wheelCircuit';
import { stateOf, type VehicleState } from './state';
import { Turning } from './turning';
import { soundSense, soundWheel, type World } from './world';

export interface BenchVehicleOptions {
	type: VehicleType;
	vin: string;
	odometerKm: number;
	faults: BenchFault[];
	/** How its physics differs from what is usual for its type. */
	scatter?: Scatter;
	/** Where every chance of this vehicle comes from. */
	seed?: number;
	/** One simulation step; a coarser one for long drives in which no single tooth matters. */
	stepS?: number;
}

/** The usual simulation step: the cycle of the fastest module. */
export const STEP_S = 0.01;
const WIGGLE_S = 5;
const WET_S = 300;
/** A sensor that was warmed stays so. */
const WARM_S = 120;
const BUSY_REPEAT_REQUEST = 0x21;

/**
 * A whole vehicle: motion, rings, wiring, modules, bus, key and lamps, on its own clock. Nothing moves unless
 * {@link advance} is called, and every chance comes from the seed, so the same calls always give the same vehicle.
 */
export class BenchVehicle {
	readonly world: World;
	readonly network: VehicleNetwork;
	readonly modules = new Map<number, Module>();
	readonly stepS: number;
	private readonly byRole = new Map<string, Module>();
	private readonly activity: Activity;
	private readonly target: Target;
	private readonly disturbance: Disturbance = { wiggled: null, sprayed: new Map(), warmed: new Map() };
	private readonly busyUntilS = new Map<number, number>();
	/** Its rings, past their sensors. */
	readonly turning: Turning;
	readonly electrics: Electrics;
	private owedS = 0;

	constructor(options: BenchVehicleOptions) {
		const { type, scatter = NO_SCATTER } = options;
		const random = uniform(options.seed ?? 1);
		this.stepS = options.stepS ?? STEP_S;
		this.network = new VehicleNetwork(type, scatter);
		const motion = new Motion(type, options.odometerKm);
		const wheels = type.wheels.map((wheel) =>
			soundWheel(wheel, likeliestFamilyAt(type, wheel.position), new Rotor(random()), scatter)
		);
		const supply = restingSupply(wheels.length, soundSensor(scatter).coilOhms20C);
		const roles = type.modules.map((module) => module.role);
		const internalFaults = new Set<ModuleRole>();
		const messages = new Messages(roles);
		this.world = {
			timeS: 0,
			type,
			vin: options.vin,
			keyOn: false,
			keyCycles: 1200,
			motion,
			wheels,
			senses: {
				'steering-angle': soundSense(),
				'yaw-rate': soundSense(),
				lateral: soundSense(),
				pressure: soundSense()
			},
			messages,
			hears: [],
			solution: this.network.solve(supply),
			random,
			frameLoss: 0,
			internalFaults,
			engineRunning: false,
			scatter
		};
		for (const module of makeModules(type, wheels)) {
			this.modules.set(module.address, module);
			this.byRole.set(module.role, module);
		}
		this.target = {
			type,
			wheels,
			network: this.network,
			senses: this.world.senses,
			module: (role) => this.byRole.get(role),
			internal: internalFaults,
			dead: supply.dead,
			frozen: messages.frozen,
			frameLoss: 0,
			batteryVolts: BATTERY_VOLTS,
			scatter
		};
		this.turning = new Turning(this.world, this.stepS, (wheel) => this.electrics.coilOhmsOf(wheel));
		this.activity = new Activity(random, type);
		this.electrics = new Electrics(this.world, this.network, supply, this.target, this.activity);
		this.activity.set(options.faults);
		for (const fault of options.faults) applyOnce(this.target, fault);
		this.electrics.update(true);
	}

	/** Moves the vehicle's clock on, in whole steps; what is left over is kept for the next call. */
	advance(seconds: number): void {
		this.owedS += seconds;
		while (this.owedS >= this.stepS - 1e-12) {
			this.owedS -= this.stepS;
			this.step();
		}
	}

	private step(): void {
		const { world, stepS } = this;
		world.timeS += stepS;
		for (const [i, { gripShare }] of world.wheels.entries()) world.motion.gripShare[i] = gripShare;
		world.motion.step(stepS);
		this.electrics.update(this.activity.step(world.motion, this.disturbance, world.timeS, stepS));
		this.turning.step();
		for (const module of this.modules.values()) {
			if (this.powered(module)) module.step(world, stepS);
			else if (module.awakeS > 0) module.restart();
		}
	}

	private powered({ role }: Module): boolean {
		return this.world.solution.rails.get(role)?.works ?? false;
	}

	turnKey(to: 'off' | 'on'): void {
		const { world } = this;
		if ((to === 'on') === world.keyOn) return;
		const had = new Set([...this.modules.values()].filter((module) => this.powered(module)));
		world.keyOn = to === 'on';
		if (to === 'off') {
			world.motion.stop();
			world.engineRunning = false;
			world.messages.forget();
		} else world.keyCycles += 1;
		this.electrics.update(false);
		if (to === 'off') return;
		for (const module of this.modules.values()) module.newCycle(had.has(module));
	}

	drive(legs: DriveLeg[]): boolean {
		if (!this.world.keyOn) return false;
		this.world.engineRunning = true;
		this.world.motion.drive(legs);
		return true;
	}

	spin(position: string, kmh: number): boolean {
		const wheel = this.world.wheels.findIndex((one) => one.position === position);
		return wheel >= 0 && this.world.motion.spin(wheel, kmh);
	}

	hasWheel(position: string): boolean {
		return this.world.wheels.some((wheel) => wheel.position === position);
	}

	/** Whether it is dangerous to put hands on it. */
	get moves(): boolean {
		return this.world.motion.driving || this.world.motion.speedMps > 0;
	}

	/** Whether nothing goes on that nobody looks at: nothing turns, nothing is moved by hand. */
	get quiet(): boolean {
		const { world, disturbance } = this;
		return (
			world.motion.still &&
			(disturbance.wiggled?.untilS ?? 0) <= world.timeS &&
			world.wheels.every(({ steel }) => (steel?.left ?? 0) === 0)
		);
	}

	/** Passes steel before a passive sensor: a few slow pulses that prove sensor, harness and input. False for others. */
	waveSteel(position: string, times: number): boolean {
		const wheel = this.world.wheels.find((one) => one.position === position);
		return wheel?.family === 'passive' && this.waveBefore(position, times);
	}

	/** Passes what its family answers to before a sensor that was taken out: steel before a coil, a magnet before others. */
	waveBefore(position: string, times: number): boolean {
		const wheel = this.world.wheels.find((one) => one.position === position);
		if (!wheel) return false;
		wheel.steel = { left: times, phase: 0 };
		return true;
	}

	/** The faults that are present, shown or not. A technician never sees this. */
	get faults(): BenchFault[] {
		return this.activity.all;
	}

	addFault(fault: BenchFault): void {
		this.activity.add(fault);
		applyOnce(this.target, fault);
		this.electrics.update(this.activity.step(this.world.motion, this.disturbance, this.world.timeS, 0));
	}

	/** Does a repair at a place, as {@link repair} has it. False for no such place. */
	mend(at: string, kind: string, leaves: readonly string[] = []): boolean {
		const { world, network, activity } = this;
		const module = (role: string) => this.byRole.get(role);
		const addFault = (fault: BenchFault) => this.addFault(fault);
		const done = repair({ world, network, activity, module, addFault }, at, kind, leaves);
		if (done) this.electrics.update(activity.step(world.motion, this.disturbance, world.timeS, 0));
		return done;
	}

	/**
	 * Moves a place by hand for some seconds: what is loose there lets go.
	 *
	 * @param links of a wheel's path, where only the plug or only the lead is moved; null = everything there
	 */
	wiggle(at: string, links: readonly string[] | null = null): void {
		this.disturbance.wiggled = { at, links, untilS: this.world.timeS + WIGGLE_S };
	}

	/** Sprays water on a place; it dries within minutes. */
	spray(at: string): void {
		this.disturbance.sprayed.set(at, this.world.timeS + WET_S);
	}

	/** Blows hot air at a place; it cools within minutes. */
	warm(at: string): void {
		this.disturbance.warmed.set(at, this.world.timeS + WARM_S);
	}

	/** Turns the steering wheel of a vehicle that is not driven. */
	steer(degrees: number): void {
		this.world.motion.steeringHeldDeg = degrees;
	}

	/** Bridges the test plug of an older brake module, or opens it. False where there is none. */
	bridge(closed: boolean): boolean {
		const module = this.byRole.get('trailer-brake');
		if (!(module instanceof TrailerBrake)) return false;
		module.bridge(closed, this.world);
		return true;
	}

	/** Blows a place dry again. */
	dry(at: string): void {
		this.disturbance.sprayed.delete(at);
		this.disturbance.warmed.delete(at);
	}

	/** Opens or closes a plug. False where there is none of that name. */
	plug(thing: string, closed: boolean): boolean {
		const done = this.network.setPlugged(thing, closed);
		if (done) this.electrics.update(false);
		return done;
	}

	/** Something was clipped to the wiring, or taken off. */
	rewired(): void {
		this.network.touch();
		this.electrics.update(false);
		this.electrics.take(this.world.solution);
	}

	/** What it keeps while it stands, as plain data. Motion is not kept: a vehicle taken out of the box stands. */
	get memory(): VehicleMemory {
		return structuredClone({
			key: this.world.keyOn ? 'on' : 'off',
			keyCycles: this.world.keyCycles,
			odometerM: this.world.motion.odometerM,
			faults: this.activity.all,
			blown: [...this.network.blownFuses],
			open: [...this.network.open],
			modules: [...this.modules].map(([address, module]) => ({
				address,
				monitors: module.monitors.map((monitor) => monitor.memory),
				kept: module.nonVolatile.memory
			}))
		} satisfies VehicleMemory);
	}

	/** Becomes the vehicle that {@link memory} was taken of. Codes that a module no longer has are passed over. */
	recall(memory: VehicleMemory): void {
		const { world } = this;
		world.keyOn = memory.key === 'on';
		world.keyCycles = memory.keyCycles;
		world.motion.odometerM = memory.odometerM;
		this.activity.set(memory.faults);
		for (const name of this.network.blownFuses) this.network.setFuse(name, true);
		for (const name of memory.blown) this.network.setFuse(name, false);
		for (const thing of memory.open) this.network.setPlugged(thing, false);
		for (const { address, monitors, kept } of memory.modules) {
			const module = this.modules.get(address);
			module?.nonVolatile.recall(kept);
			for (const one of monitors) module?.monitors.find((m) => m.rule.dtc === one.dtc)?.recall(one);
		}
		this.electrics.update(true);
	}

	/** Whether a module can be reached through the gateway at this moment: it hears the gateway, and is heard by it. */
	reachable(address: number): boolean {
		const module = this.modules.get(address);
		const gateway = this.byRole.get('gateway');
		if (!module || !gateway || !this.powered(module) || !module.awake || !this.powered(gateway)) return false;
		const index = (role: string) => this.world.type.modules.findIndex((one) => one.role === role);
		const [to, from] = [index(module.role), index('gateway')];
		return Boolean(this.world.hears[to]?.[from] && this.world.hears[from]?.[to]);
	}

	/** One request to one module. Null where the gateway knows no such module or cannot reach it. */
	request(address: number, bytes: Uint8Array): Answer[] | null {
		const module = this.modules.get(address);
		if (!module || !this.reachable(address)) return null;
		if ((this.busyUntilS.get(address) ?? 0) > this.world.timeS) {
			return [{ afterS: 0, bytes: [0x7f, bytes[0] ?? 0, BUSY_REPEAT_REQUEST] }];
		}
		module.asked(this.world.timeS);
		const answers = answer(bytes, module, this.world);
		const last = answers.at(-1);
		if (last && answers.length > 1) this.busyUntilS.set(address, this.world.timeS + last.afterS);
		return answers;
	}

	/** Periodic messages that have become due, with the address they come from. */
	takePeriodic(): { address: number; bytes: number[] }[] {
		return [...this.modules.values()].flatMap((module) =>
			module
				.takePeriodic(this.world)
				.flatMap((bytes) => (this.reachable(module.address) ? [{ address: module.address, bytes }] : []))
		);
	}

	module(role: ModuleRole): Module | undefined {
		return this.byRole.get(role);
	}

	hasNode(node: string): boolean {
		const { signals, power } = this.world.solution;
		return signals.has(node) || power.has(node);
	}

	/** Volts of a node with nothing moving. */
	volts(node: string): number {
		return nodeVolts(this.world.solution, node);
	}

	get state(): VehicleState {
		return { ...stateOf(this.world, (role) => this.byRole.get(role)), open: [...this.network.open] };
	}
}

/** Numbers from 0 up to 1, the same for the same seed. */
export function uniform(seed: number): () => number {
	const generator = xoroshiro128plus(seed);
	return () => (generator.next() >>> 0) / 2 ** 32;
}
