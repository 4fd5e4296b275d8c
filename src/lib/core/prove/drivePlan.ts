import { signalsOf, type Condition } from '../conditions/condition';
import { evaluateCondition } from '../conditions/conditionWatch';
import { driveNeeds, together, type DriveNeed } from './driveNeeds';

/** What is to be proven by a drive. */
export interface DriveTask {
	/** Code, or what else is wanted. */
	name: string;
	condition: Condition;
}

/** One thing the driver does. */
export interface DriveLeg {
	speedKmh: readonly [low: number, high: number];
	/** Aimed at. */
	atKmh: number;
	steeringDeg: number;
	brakes: boolean;
	holdS: number;
	/** Tasks that it serves. */
	for: string[];
}

export interface DrivePlan {
	legs: DriveLeg[];
	/** All of it, from standstill to standstill. */
	seconds: number;
	km: number;
	/** Tasks that no such drive brings about: the plan was driven in the computer, and they were not met. */
	unmet: string[];
}

const ACCELERATES_MPS2 = 1.5;
const BRAKES_MPS2 = 2;
/** While a condition asks for the brake: no more than is needed to keep its switch closed. */
const DRAGS_MPS2 = 0.4;
const STEERS_DEG_PER_S = 180;
/** Nobody has to hold a speed to the kilometre. */
const BAND_KMH = 8;
/** More is gathered than is asked for: a dial lags. */
const SPARE_S = 1;
const STEP_S = 0.1;
const KMH = 3.6;
const FASTEST_KMH = 100;

/**
 * The shortest drive found that lets every task's condition be met: what can be done at once is done at once, then from slow
 * to fast, so that it accelerates once. Found by first fit, longest hold first; what it comes to is checked by driving it.
 */
export function planDrive(tasks: readonly DriveTask[]): DrivePlan {
	const groups: { need: DriveNeed; for: string[] }[] = [];
	const unmet: string[] = [];
	const wanted = tasks
		.map((task) => ({
			task,
			ways: driveNeeds(task.condition).filter(({ speedKmh }) => speedKmh[0] <= FASTEST_KMH)
		}))
		.sort((a, b) => leastHold(b.ways) - leastHold(a.ways));
	for (const { task, ways } of wanted) {
		if (ways.length === 0) {
			unmet.push(task.name);
			continue;
		}
		const home = bestHome(groups, ways);
		if (home) {
			home.group.need = home.need;
			home.group.for.push(task.name);
		} else groups.push({ need: slowest(ways), for: [task.name] });
	}
	const legs = groups.map(({ need, for: names }) => legOf(need, names)).sort((a, b) => a.atKmh - b.atKmh);
	const driven = simulate(legs);
	const missed = tasks.filter(
		({ name, condition }) =>
			!unmet.includes(name) &&
			evaluateCondition(withGiven(condition, true), driven.samples).intervals.length === 0
	);
	return {
		legs,
		seconds: driven.seconds,
		km: driven.km,
		unmet: [...unmet, ...missed.map(({ name }) => name)]
	};
}

const WHEELS = [
	'front_wheel',
	'rear_wheel',
	...['front', 'rear', 'axle1', 'axle2', 'axle3'].flatMap((axle) => [`${axle}_left`, `${axle}_right`])
];
const DRIVEN = new Set([
	'vehicle',
	'steering',
	'brake_switch',
	'key_on',
	'supply',
	'yaw',
	'lateral',
	...WHEELS
]);
const constant = (truth: boolean): Condition => ({
	kind: 'compare',
	left: { kind: 'value', value: 1 },
	is: 'equal',
	right: { kind: 'value', value: truth ? 1 : 0 },
	hysteresis: 0
});

/**
 * A condition with everything but some signals taken to be as it should: what no driver can change (a line's voltage, a
 * message's age), or what nobody reads.
 *
 * @param wanted whether the condition shall hold
 */
export function withGiven(
	condition: Condition,
	wanted: boolean,
	known: ReadonlySet<string> = DRIVEN
): Condition {
	switch (condition.kind) {
		case 'compare':
			return signalsOf(condition).every((signal) => known.has(signal)) ? condition : constant(wanted);
		case 'not':
			return { ...condition, of: withGiven(condition.of, !wanted, known) };
		case 'held':
			return { ...condition, of: withGiven(condition.of, wanted, known) };
		default:
			return { ...condition, of: condition.of.map((part) => withGiven(part, wanted, known)) };
	}
}

const leastHold = (ways: readonly DriveNeed[]): number =>
	Math.min(...ways.map(({ holdS }) => holdS), Infinity);
const slowest = (ways: readonly DriveNeed[]): DriveNeed =>
	ways.reduce((best, way) => (costOf(way) < costOf(best) ? way : best));
/** Seconds to get there and to hold it. */
const costOf = ({ speedKmh, holdS, steeringDeg }: DriveNeed): number =>
	holdS + speedKmh[0] / KMH / ACCELERATES_MPS2 + (steeringDeg ? 2 : 0);

/** The group into which a task fits at the least further time. */
function bestHome(groups: readonly { need: DriveNeed; for: string[] }[], ways: readonly DriveNeed[]) {
	let best: { group: (typeof groups)[number]; need: DriveNeed; more: number } | null = null;
	for (const group of groups)
		for (const way of ways) {
			const need = together(group.need, way);
			if (!need) continue;
			const more = costOf(need) - costOf(group.need);
			if (!best || more < best.more) best = { group, need, more };
		}
	// A leg of its own would cost its hold and nothing less.
	return best && best.more <= Math.min(...ways.map(costOf)) ? best : null;
}

function legOf({ speedKmh: [low, high], steeringDeg, brakes, holdS }: DriveNeed, names: string[]): DriveLeg {
	const from = Math.max(low, 0);
	const to = Math.min(high, from + BAND_KMH);
	const atKmh = high === 0 ? 0 : Math.min((from + to) / 2, Math.max(from, high));
	return {
		speedKmh: [from, to],
		atKmh,
		steeringDeg: steeringDeg ? nearestTo(0, steeringDeg) : 0,
		brakes: brakes ?? false,
		holdS: holdS + SPARE_S,
		for: names
	};
}
const nearestTo = (value: number, [low, high]: readonly [number, number]): number =>
	Math.min(high, Math.max(low, value));

interface Driven {
	samples: { timeS: number; values: Record<string, number> }[];
	seconds: number;
	km: number;
}

/** Drives a plan on a sound vehicle, in steps of a tenth of a second. */
export function simulate(legs: readonly DriveLeg[]): Driven {
	const samples: Driven['samples'] = [];
	let [timeS, kmh, steering, metres] = [0, 0, 0, 0];
	const step = (brakes: boolean) => {
		const values: Record<string, number> = {
			vehicle: kmh,
			steering,
			brake_switch: brakes ? 1 : 0,
			key_on: 1,
			supply: 14,
			yaw: steering / 12,
			lateral: (steering / 500) * Math.min(1, kmh / 20)
		};
		for (const wheel of WHEELS) values[wheel] = kmh;
		samples.push({ timeS, values });
		timeS += STEP_S;
		metres += (kmh / KMH) * STEP_S;
	};
	const towards = (aimKmh: number, aimDeg: number) => {
		while (Math.abs(kmh - aimKmh) > 1e-6 || Math.abs(steering - aimDeg) > 1e-6) {
			const faster = aimKmh > kmh;
			const most = (faster ? ACCELERATES_MPS2 : BRAKES_MPS2) * KMH * STEP_S;
			kmh += Math.max(-most, Math.min(most, aimKmh - kmh));
			steering += Math.max(
				-STEERS_DEG_PER_S * STEP_S,
				Math.min(STEERS_DEG_PER_S * STEP_S, aimDeg - steering)
			);
			step(!faster && aimKmh < kmh);
		}
	};
	step(false);
	for (const leg of legs) {
		const { speedKmh, atKmh, steeringDeg, brakes, holdS } = leg;
		// Braking, it slows: it begins fast enough to stay within its band to the end.
		const slows = brakes && atKmh > 0 ? DRAGS_MPS2 * KMH * holdS : 0;
		towards(brakes ? Math.max(atKmh, speedKmh[0] + slows) : atKmh, steeringDeg);
		for (let s = 0; s < holdS; s += STEP_S) {
			if (brakes && kmh > 0) kmh = Math.max(0, kmh - DRAGS_MPS2 * KMH * STEP_S);
			step(brakes);
		}
	}
	towards(0, 0);
	step(false);
	return { samples, seconds: timeS, km: metres / 1000 };
}

/** A leg as it is called out to the driver. */
export function legWords({ speedKmh: [low, high], steeringDeg, brakes, holdS }: DriveLeg): string {
	const turn =
		steeringDeg === 0
			? ''
			: `, steering ${Math.abs(steeringDeg)}° to the ${steeringDeg > 0 ? 'left' : 'right'}`;
	const brake = brakes ? ', foot lightly on the brake' : '';
	const speed = high < 1 ? 'Stand still' : `${Math.ceil(low)} to ${Math.floor(high)} km/h`;
	return `${speed}${turn}${brake}, for ${Math.ceil(holdS)} s`;
}
