import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Condition } from '../conditions/condition';
import { evaluateCondition } from '../conditions/conditionWatch';
import { driveNeeds } from './driveNeeds';
import { legWords, planDrive, simulate, type DriveTask } from './drivePlan';

const above = (signal: string, value: number): Condition => ({
	kind: 'compare',
	left: { kind: 'signal', signal },
	is: 'above',
	right: { kind: 'value', value },
	hysteresis: 0
});
const below = (signal: string, value: number): Condition =>
	({ ...above(signal, value), is: 'below' }) as Condition;
const all = (...of: Condition[]): Condition => ({ kind: 'all', of });
const any = (...of: Condition[]): Condition => ({ kind: 'any', of });
const held = (forS: number, of: Condition): Condition => ({ kind: 'held', forS, of });
const task = (name: string, condition: Condition): DriveTask => ({ name, condition });
const brakes = (on: boolean): Condition =>
	({ ...above('brake_switch', on ? 1 : 0), is: 'equal' }) as Condition;

/** A plan is right when a vehicle that drives it meets every condition. */
const meets = (tasks: DriveTask[]) => {
	const { samples } = simulate(planDrive(tasks).legs);
	return tasks.every(({ condition }) => evaluateCondition(condition, samples).intervals.length > 0);
};

describe('what a condition asks of a drive', () => {
	it.each<[string, Condition, object[]]>([
		['a speed', above('vehicle', 20), [{ speedKmh: [23, Infinity], holdS: 0 }]],
		['held', held(10, above('rear_left', 30)), [{ speedKmh: [33, Infinity], holdS: 10 }]],
		['a band', all(above('vehicle', 30), below('vehicle', 50)), [{ speedKmh: [33, 47] }]],
		['either', any(above('vehicle', 80), brakes(true)), [{ speedKmh: [83, Infinity] }, { brakes: true }]],
		['not', { kind: 'not', of: above('vehicle', 20) }, [{ speedKmh: [0, 17] }]],
		[
			'a bend',
			all(above('steering', 90), above('vehicle', 10)),
			[{ speedKmh: [13, Infinity], steeringDeg: [100, 720] }]
		],
		[
			'wheels that agree',
			{
				kind: 'compare',
				left: { kind: 'difference', between: ['front_left', 'front_right'] },
				is: 'below',
				right: { kind: 'value', value: 5 },
				hysteresis: 0
			},
			[{}]
		],
		['what excludes itself', all(above('vehicle', 60), below('vehicle', 40)), []],
		[
			'a wheel that stands while the vehicle rolls',
			all(above('vehicle', 20), {
				kind: 'compare',
				left: { kind: 'signal', signal: 'rear_left' },
				is: 'below',
				right: { kind: 'share', percent: 50, of: 'vehicle' },
				hysteresis: 0
			}),
			[]
		]
	])('%s', (_what, condition, expected) => {
		const needs = driveNeeds(condition);
		expect(needs).toHaveLength(expected.length);
		expect(needs).toMatchObject(expected);
	});
});

describe('the shortest drive that runs every test', () => {
	it('does at once what can be done at once', () => {
		const tasks = [
			task('C0035', held(10, above('vehicle', 20))),
			task('C0040', held(8, above('vehicle', 25))),
			task('C0045', held(1, above('rear_left', 10)))
		];
		const plan = planDrive(tasks);
		expect(plan.legs).toHaveLength(1);
		expect(plan.legs[0]).toMatchObject({ holdS: 11, for: ['C0035', 'C0040', 'C0045'] });
		expect(plan.unmet).toEqual([]);
		expect(meets(tasks)).toBe(true);
		expect(legWords(plan.legs[0]!)).toBe('28 to 36 km/h, for 11 s');
	});

	it('goes from slow to fast where they exclude each other, and counts time and way', () => {
		const tasks = [
			task('fast', held(5, above('vehicle', 60))),
			task('walking', held(5, all(above('vehicle', 4), below('vehicle', 12)))),
			task('left', held(2, all(above('steering', 90), below('vehicle', 25), above('vehicle', 8)))),
			task('right', held(2, all(below('steering', -90), below('vehicle', 25), above('vehicle', 8))))
		];
		const plan = planDrive(tasks);
		expect(plan.unmet).toEqual([]);
		expect(meets(tasks)).toBe(true);
		expect(plan.legs.map(({ atKmh }) => atKmh)).toEqual(
			[...plan.legs.map(({ atKmh }) => atKmh)].sort((a, b) => a - b)
		);
		expect(plan.seconds).toBeGreaterThan(16);
		expect(plan.seconds).toBeLessThan(90);
		expect(plan.km).toBeGreaterThan(0.1);
	});

	it('brakes while it rolls, where a test wants the pedal', () => {
		const tasks = [task('pedal', held(3, all(brakes(true), above('vehicle', 20))))];
		expect(planDrive(tasks).unmet).toEqual([]);
		expect(meets(tasks)).toBe(true);
	});

	it('takes the easier of two ways', () => {
		const [leg] = planDrive([
			task('either', any(held(60, above('vehicle', 80)), held(2, above('vehicle', 10))))
		]).legs;
		expect(leg).toMatchObject({ holdS: 3 });
		expect(leg?.atKmh).toBeLessThan(30);
	});

	it('names what no sound vehicle can bring about, and drives the rest', () => {
		const plan = planDrive([
			task('impossible', all(above('vehicle', 60), below('vehicle', 40))),
			task('possible', above('vehicle', 10))
		]);
		expect(plan.unmet).toEqual(['impossible']);
		expect(plan.legs).toHaveLength(1);
		expect(planDrive([])).toMatchObject({ legs: [], unmet: [], km: 0 });
	});

	it('whatever bands are asked for, all are met; no plan is longer than one leg after the other', () => {
		const band = fc
			.record({
				low: fc.integer({ min: 0, max: 80 }),
				wide: fc.integer({ min: 12, max: 60 }),
				forS: fc.integer({ min: 1, max: 30 })
			})
			.map(({ low, wide, forS }) => held(forS, all(above('vehicle', low), below('vehicle', low + wide))));
		fc.assert(
			fc.property(fc.array(band, { minLength: 1, maxLength: 7 }), (conditions) => {
				const tasks = conditions.map((condition, i) => task(String(i), condition));
				const plan = planDrive(tasks);
				expect(plan.unmet).toEqual([]);
				expect(meets(tasks)).toBe(true);
				const apart = tasks.flatMap((one) => planDrive([one]).legs).sort((a, b) => a.atKmh - b.atKmh);
				expect(plan.seconds).toBeLessThanOrEqual(simulate(apart).seconds + 1e-6);
			}),
			{ numRuns: 300 }
		);
	});
});
