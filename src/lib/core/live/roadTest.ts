import { signalsOf, type Condition } from '../conditions/condition';
import { ConditionWatch } from '../conditions/conditionWatch';
import { isWheel, tellsNothing } from './recording';
import { signalLookup } from './signalLookup';

/** One thing that a road test must cover. */
export interface RoadLeg {
	id: string;
	/** What the driver is told. */
	says: string;
	/** Why it is in the plan. */
	why: string;
	condition: Condition;
	/** Seconds for which the condition must have been met in all; 0 = met once is enough. */
	needS: number;
	/** So many separate times. */
	needTimes: number;
}

/** Something that a drive can meet. */
export type Showing = 'slow' | 'fast' | 'turning' | 'wet' | 'rough';

/** What the plan is made from. */
export interface RoadReasons {
	/** Test conditions of the codes at hand, with how they read. */
	tests: { text: string; condition: Condition; words: string }[];
	/** When it shows, by what the customer says. */
	shows: ReadonlySet<Showing>;
	/** Wheels of the vehicle, as channels. */
	wheels: readonly string[];
}

const above = (signal: string, kmh: number): Condition => ({
	kind: 'compare',
	left: { kind: 'signal', signal },
	is: 'above',
	right: { kind: 'value', value: kmh },
	hysteresis: 0
});
const below = (signal: string, kmh: number): Condition => ({
	kind: 'compare',
	left: { kind: 'signal', signal },
	is: 'below',
	right: { kind: 'value', value: kmh },
	hysteresis: 0
});
const between = (low: number, high: number): Condition[] => [above('vehicle', low), below('vehicle', high)];
/** One wheel slower than its mate by so much: a bend to that side. */
const bend = (inner: string, outer: string): Condition => ({
	kind: 'all',
	of: [
		above('vehicle', 8),
		{
			kind: 'compare',
			left: { kind: 'signal', signal: inner },
			is: 'below',
			right: { kind: 'share', percent: 96, of: outer },
			hysteresis: 0
		}
	]
});

/**
 * A road test from what there is to know: the tests of the codes must be able to run, what the customer describes must be
 * met, and every wheel must be seen starting, rolling evenly, turning both ways and stopping.
 */
export function planRoadTest({ tests, shows, wheels }: RoadReasons): RoadLeg[] {
	const leg = (
		id: string,
		says: string,
		why: string,
		condition: Condition,
		need: Partial<RoadLeg> = {}
	): RoadLeg => ({
		id,
		says,
		why,
		condition,
		needS: 0,
		needTimes: 1,
		...need
	});
	const [left, right] = ['left', 'right'].map((side) => wheels.find((wheel) => wheel.endsWith(side)) ?? '');
	const slow = shows.has('slow');
	const plan: RoadLeg[] = [
		leg(
			'starts',
			`From standstill to 20 km/h and back to a stop, gently, ${slow ? 'six' : 'three'} times.`,
			slow
				? 'It shows near standstill, by what the customer says.'
				: 'A weak signal begins late and ends early.',
			{ kind: 'all', of: between(2, 12) },
			{ needTimes: slow ? 12 : 6 }
		),
		leg(
			'even',
			'Straight and even at 40 to 60 km/h for half a minute.',
			'Wheels are compared while nothing else changes.',
			{ kind: 'all', of: between(35, 65) },
			{ needS: 30 }
		)
	];
	if (left && right) {
		const turning = shows.has('turning');
		const why = turning
			? 'It shows when turning, by what the customer says.'
			: 'Leads move when wheels are turned; inner and outer wheel must fit.';
		const needS = turning ? 12 : 4;
		plan.push(
			leg('left', 'Bends to the left, slow and tight.', why, bend(left, right), { needS }),
			leg('right', 'Bends to the right, slow and tight.', why, bend(right, left), { needS })
		);
	}
	if (shows.has('fast'))
		plan.push(
			leg(
				'fast',
				'Above 80 km/h for a minute, where that is allowed.',
				'It shows at speed, by what the customer says.',
				above('vehicle', 80),
				{ needS: 60 }
			)
		);
	if (shows.has('rough'))
		plan.push(
			leg(
				'rough',
				'A rough road for a minute, at 20 km/h or more.',
				'It shows when shaken, by what the customer says.',
				above('vehicle', 20),
				{ needS: 60 }
			)
		);
	if (shows.has('wet'))
		plan.push(
			leg(
				'wet',
				'With the wheels wet: in rain, or after wetting them.',
				'It shows when wet, by what the customer says.',
				above('vehicle', 15),
				{ needS: 60 }
			)
		);
	for (const { text, condition, words } of tests)
		plan.push(
			leg(
				`test ${text}`,
				`${words.charAt(0).toUpperCase()}${words.slice(1)}.`,
				`Then the test of ${text} can run.`,
				condition
			)
		);
	return plan;
}

export interface LegProgress {
	id: string;
	/** Share that is covered, 0–1. */
	done: number;
	metS: number;
	times: number;
	/** Whether its condition holds at this moment. */
	now: boolean;
	/** Signals that it needs and that are not being read: it cannot be told. */
	missing: string[];
}

/** Longer than this between two readings nobody knows what happened. */
const GAP_S = 1;

/** Follows a drive along its plan, reading by reading. */
export class RoadProgress {
	private readonly legs: { leg: RoadLeg; watch: ConditionWatch; metS: number; times: number; now: boolean }[];
	private lastS: number | null = null;
	private read = new Set<string>();

	constructor(plan: readonly RoadLeg[]) {
		this.legs = plan.map((leg) => ({
			leg,
			watch: new ConditionWatch(leg.condition, GAP_S),
			metS: 0,
			times: 0,
			now: false
		}));
	}

	/** @param values one reading by channel; NaN or nothing where it was not read */
	sample(timeS: number, values: ReadonlyMap<string, number>): void {
		const stepS = this.lastS === null ? 0 : timeS - this.lastS;
		this.lastS = timeS;
		for (const [name, value] of values) if (!Number.isNaN(value)) this.read.add(name);
		const lookup = signalLookup(
			(signal) => values.get(signal) ?? (signal === 'vehicle' ? speedOfWheels(values) : undefined)
		);
		for (const one of this.legs) {
			const met = one.watch.sample(timeS, lookup) === 'met';
			if (met && one.now && stepS <= GAP_S) one.metS += stepS;
			if (met && !one.now) one.times += 1;
			one.now = met;
		}
	}

	get progress(): LegProgress[] {
		return this.legs.map(({ leg, metS, times, now }) => {
			const bySpan = leg.needS > 0 ? metS / leg.needS : times > 0 ? 1 : 0;
			const byTimes = times / leg.needTimes;
			const missing = signalsOf(leg.condition).filter(
				(signal) =>
					signal !== 'key_on' && signal !== 'vehicle' && this.lastS !== null && !this.read.has(signal)
			);
			return { id: leg.id, done: Math.min(1, bySpan, byTimes), metS, times, now, missing };
		});
	}
}

/** Where no vehicle speed is read, the wheels tell it: the second fastest, so that one liar does not. */
function speedOfWheels(values: ReadonlyMap<string, number>): number | undefined {
	const speeds = [...values]
		.filter(([name, value]) => isWheel(name) && !tellsNothing(name, value))
		.map(([, value]) => value)
		.sort((a, b) => b - a);
	return speeds[1] ?? speeds[0];
}
