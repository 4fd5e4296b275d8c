import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Condition, conditionDepth, MOST_DEPTH, signalsOf, type Operand } from './condition';
import { conditionSentence } from './conditionSentence';
import { ConditionWatch, evaluateCondition } from './conditionWatch';

const signal = (name: string): Operand => ({ kind: 'signal', signal: name });
const value = (number: number): Operand => ({ kind: 'value', value: number });
const above = (name: string, limit: number, hysteresis = 0): Condition => ({
	kind: 'compare',
	left: signal(name),
	is: 'above',
	right: value(limit),
	hysteresis
});
/** One sample each 0.1 s. */
const run = (values: (number | null)[], name = 'vehicle') =>
	values.map((v, i) => ({ timeS: i / 10, values: { [name]: v } }));

/** The rear-left wheel reads less than half of the vehicle speed above 20 km/h for 0.3 s. */
const DROPOUT: Condition = {
	kind: 'held',
	forS: 0.3,
	of: {
		kind: 'all',
		of: [
			above('vehicle', 20),
			{
				kind: 'compare',
				left: signal('rear_left'),
				is: 'below',
				right: { kind: 'share', percent: 50, of: 'vehicle' },
				hysteresis: 0
			}
		]
	}
};

describe('set conditions over samples', () => {
	it('are met from the sample that shows them to the last that does', () => {
		expect(evaluateCondition(above('vehicle', 20), run([10, 21, 25, 20, 30]))).toEqual({
			intervals: [
				{ startS: 0.1, endS: 0.2 },
				{ startS: 0.4, endS: 0.4 }
			],
			metS: expect.closeTo(0.1),
			unknown: false
		});
	});

	it('with hysteresis end only when the value has come back far enough', () => {
		const report = evaluateCondition(above('vehicle', 20, 5), run([19, 21, 18, 16, 15, 18, 21]));
		expect(report.intervals).toEqual([
			{ startS: 0.1, endS: 0.3 },
			{ startS: 0.6, endS: 0.6 }
		]);
	});

	it('held for a time start over after each break', () => {
		const values = [25, 25, 25, 10, 25, 25, 25, 25, 25];
		const held: Condition = { kind: 'held', forS: 0.3, of: above('vehicle', 20) };
		expect(evaluateCondition(held, run(values)).intervals).toEqual([{ startS: 0.7, endS: 0.8 }]);
	});

	it('a hole in the recording is a break: nobody knows what happened in it', () => {
		const held: Condition = { kind: 'held', forS: 2, of: above('vehicle', 20) };
		const watch = new ConditionWatch(held, 1);
		const at = (timeS: number) => watch.sample(timeS, () => 30);
		expect([0, 1, 5, 6, 7].map(at)).toEqual(['not-met', 'not-met', 'not-met', 'not-met', 'met']);
	});

	it('a missing signal makes unknown only what depends on it', () => {
		const lookup = (name: string) => (name === 'vehicle' ? 30 : null);
		const once = (condition: Condition) => new ConditionWatch(condition).sample(0, lookup);
		expect(once({ kind: 'any', of: [above('vehicle', 20), above('yaw', 1)] })).toBe('met');
		expect(once({ kind: 'all', of: [above('vehicle', 20), above('yaw', 1)] })).toBe('unknown');
		expect(once({ kind: 'all', of: [above('vehicle', 40), above('yaw', 1)] })).toBe('not-met');
		expect(once({ kind: 'not', of: above('yaw', 1) })).toBe('unknown');
		expect(new ConditionWatch(above('vehicle', 1)).sample(0, () => NaN)).toBe('unknown');
	});

	it('see a wheel that falls away while the vehicle rolls, and not one that follows', () => {
		const drive = (rearLeft: (i: number) => number) =>
			Array.from({ length: 20 }, (_, i) => ({
				timeS: i / 10,
				values: { vehicle: 40, rear_left: rearLeft(i) }
			}));
		expect(
			evaluateCondition(
				DROPOUT,
				drive((i) => (i >= 5 && i < 12 ? 0 : 40))
			).intervals
		).toEqual([{ startS: 0.8, endS: 1.1 }]);
		expect(
			evaluateCondition(
				DROPOUT,
				drive(() => 38)
			).intervals
		).toEqual([]);
	});

	it('"not" turns the truth round, whatever the numbers', () => {
		fc.assert(
			fc.property(fc.array(fc.double({ noNaN: true, min: -300, max: 300 })), (values) => {
				const plain = evaluateCondition(above('vehicle', 20), run(values));
				const twice = evaluateCondition(
					{ kind: 'not', of: { kind: 'not', of: above('vehicle', 20) } },
					run(values)
				);
				expect(twice).toEqual(plain);
			})
		);
	});
});

describe('set conditions as data', () => {
	it('are refused with the place of what is wrong', () => {
		const bad = Condition.safeParse({ kind: 'held', forS: -1, of: { kind: 'compare', is: 'near' } });
		expect(bad.error?.issues.map((issue) => issue.path.join('.'))).toEqual(
			expect.arrayContaining(['forS', 'of.is', 'of.left', 'of.right'])
		);
		expect(Condition.safeParse({ kind: 'all', of: [] }).success).toBe(false);
	});

	it('know their signals and their depth', () => {
		expect(signalsOf(DROPOUT)).toEqual(['vehicle', 'rear_left']);
		expect(conditionDepth(DROPOUT)).toBe(3);
		expect(conditionDepth(DROPOUT)).toBeLessThanOrEqual(MOST_DEPTH);
	});

	it('read as a sentence', () => {
		const words = (name: string) => ({
			name: name.replace('_', ' '),
			unit: name === 'brake_switch' ? '' : 'km/h',
			isSwitch: name === 'brake_switch'
		});
		expect(conditionSentence(DROPOUT, words)).toBe(
			'vehicle above 20 km/h and rear left below 50 % of vehicle, for 0.3 s without a break'
		);
		const mixed: Condition = {
			kind: 'all',
			of: [
				{ kind: 'compare', left: signal('brake_switch'), is: 'equal', right: value(0), hysteresis: 0 },
				{ kind: 'any', of: [above('vehicle', 20, 2), { kind: 'not', of: above('rear_left', 5) }] },
				{
					kind: 'compare',
					left: { kind: 'difference', between: ['front_left', 'front_right'] },
					is: 'at-least',
					right: value(6),
					hysteresis: 0
				}
			]
		};
		expect(conditionSentence(mixed, words)).toBe(
			'brake switch off and (vehicle above 20 km/h (ends only 2 km/h below that) or not rear left above 5 km/h) ' +
				'and the difference between front left and front right at least 6 km/h'
		);
	});
});
