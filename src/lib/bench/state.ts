import type { ModuleRole } from '../../../library';
import { BrakeControl } from './modules/brakeControl';
import type { Module } from './modules/module';
import { BENCH_LAMPS, type Lamp } from './modules/monitor';
import { Cluster } from './modules/cluster';
import { PowerSteering } from './modules/drivetrain';
import { PedalBrake } from './modules/pedalBrake';
import { TrailerBrake } from './modules/trailerBrake';
import { WheelModule } from './modules/wheelModule';
import { railsOf, type World } from './world';

/** What a person in or beside the vehicle can notice without any tool. */
export type Felt =
	| 'pedal pulses'
	| 'valves click'
	| 'pump runs'
	| 'power is cut'
	| 'steering is heavy'
	| 'speedometer is dead'
	| 'a wheel slides under the brake';

/** What the stand-in's control panel shows: the outside of the vehicle, as a person beside it sees it. */
export interface VehicleState {
	key: 'off' | 'on';
	timeS: number;
	speedKmh: number;
	odometerKm: number;
	driving: boolean;
	lifted: boolean;
	steeringDeg: number;
	/** By position; backwards is negative. */
	wheelsKmh: Record<string, number>;
	lamps: Record<Lamp, boolean>;
	selfCheck: boolean;
	felt: Felt[];
	/** Plugs that are open. */
	open: string[];
}

const DEAD_DIAL_KMH = 10;

export function stateOf(
	world: World,
	module: (role: ModuleRole) => Module | undefined
): Omit<VehicleState, 'open'> {
	const { motion } = world;
	const works = (one: Module | undefined) => one !== undefined && one.awake && railsOf(world, one.role).works;
	const cluster = module('cluster');
	const dash = cluster ?? module('brake');
	const selfCheck =
		world.keyOn && works(dash) && (dash instanceof Cluster || dash instanceof PedalBrake) && dash.selfCheck;
	return {
		key: world.keyOn ? 'on' : 'off',
		timeS: world.timeS,
		speedKmh: motion.speedMps * 3.6,
		odometerKm: motion.odometerM / 1000,
		driving: motion.driving,
		lifted: motion.lifted,
		steeringDeg: motion.steeringDeg,
		wheelsKmh: motion.wheelsKmh(),
		lamps: lampsOf(world, module, works),
		selfCheck,
		felt: feltOf(world, module, works)
	};
}

function lampsOf(
	world: World,
	module: (role: ModuleRole) => Module | undefined,
	works: (one: Module | undefined) => boolean
): Record<Lamp, boolean> {
	const cluster = module('cluster');
	const gateway = module('gateway');
	const brake = module('brake');
	let lit = new Set<Lamp>();
	if (brake instanceof PedalBrake) {
		// It has a lamp of its own, which nothing else lights.
		if (world.keyOn && works(brake) && brake.lit(world)) lit.add('anti-lock');
	} else if (world.keyOn && works(cluster) && cluster instanceof Cluster) lit = cluster.lit(world);
	else if (world.keyOn && !cluster && works(gateway)) {
		// A trailer has one lamp, at the drawbar, driven by its gateway.
		const trailer = world.messages.read('gateway', 'trailer-brake', world.timeS);
		const own = module('trailer-brake');
		const flash = works(own) && own instanceof TrailerBrake ? own.flash(world) : null;
		if (flash !== null) lit = new Set(flash ? ['brake'] : []);
		else lit = new Set(trailer ? trailer.lamps : ['brake']);
	}
	return Object.fromEntries(BENCH_LAMPS.map((lamp) => [lamp, lit.has(lamp)])) as Record<Lamp, boolean>;
}

function feltOf(
	world: World,
	module: (role: ModuleRole) => Module | undefined,
	works: (one: Module | undefined) => boolean
): Felt[] {
	const felt: Felt[] = [];
	const brake = module('brake') ?? module('trailer-brake');
	if (works(brake) && brake instanceof WheelModule && brake.letsGo) felt.push('pedal pulses');
	if (works(brake) && brake instanceof TrailerBrake && brake.valvesClick(world)) felt.push('valves click');
	if (world.motion.locked) felt.push('a wheel slides under the brake');
	if (works(brake) && brake instanceof BrakeControl && brake.cutsPower) felt.push('power is cut');
	if (works(brake) && brake instanceof BrakeControl && brake.pumpRuns(world)) felt.push('pump runs');
	const steering = module('power-steering');
	if (world.keyOn && steering instanceof PowerSteering && !works(steering)) felt.push('steering is heavy');
	const cluster = module('cluster');
	const moves = world.motion.speedMps * 3.6 > DEAD_DIAL_KMH;
	if (moves && cluster instanceof Cluster && (!works(cluster) || cluster.dialKmh(world) < 1))
		felt.push('speedometer is dead');
	return felt;
}
