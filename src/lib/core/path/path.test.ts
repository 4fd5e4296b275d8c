import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../live/drives.fixture';
import { believe } from './believe';
import { contradictions } from './contradiction';
import { explain } from './explain';
import { smallestExplanations } from './explanations';
import { minutesToGo } from './minutesToGo';
import { pairChance, type Observation, type PathModel, type SignTable } from './model';
import { decide, minutesOf } from './nextTest';
import { policyAt, PROVE_FIRST, TRACK_RECORD } from './policy';
import { mendingCost } from './repairCost';
import { inseparable } from './separable';
import { situationOf } from './situation';
import { costOfChoosing, optimalCost, smallModel } from './smallModels.fixture';
import { learnedWeights } from './trackRecord';

/** Three faults: a and b show on the same test in different ways, c on another. */
function threeFaults(): PathModel {
	const table = (key: string, outcomes: string[], rows: number[][]): SignTable => {
		const sound = rows[0] ?? [];
		return {
			key,
			outcomes,
			good: 0,
			sound: Float64Array.from(sound),
			chance: Float64Array.from([...rows.slice(1), ...rows.slice(1)].flat()),
			acts: Uint8Array.from([...rows.slice(1), ...rows.slice(1)].map((row) => Number(row[0] !== sound[0])))
		};
	};
	const tables = [
		table(
			'volts',
			['in', 'low', 'high'],
			[
				[0.98, 0.01, 0.01],
				[0.1, 0.89, 0.01],
				[0.1, 0.01, 0.89],
				[0.98, 0.01, 0.01]
			]
		),
		table(
			'ring',
			['good', 'bad'],
			[
				[0.95, 0.05],
				[0.95, 0.05],
				[0.95, 0.05],
				[0.2, 0.8]
			]
		),
		table(
			'drive',
			['good', 'bad'],
			[
				[0.99, 0.01],
				[0.05, 0.95],
				[0.05, 0.95],
				[0.1, 0.9]
			]
		)
	];
	return {
		faults: [
			{ id: 'a', prior: 0.5, curedBy: [0] },
			{ id: 'b', prior: 0.3, curedBy: [1] },
			{ id: 'c', prior: 0.2, curedBy: [2] }
		],
		rows: [0, 1, 2].map((fault) => ({ fault, share: 1 })),
		nothing: 0.05,
		pairs: 0.1,
		repairs: ['a', 'b', 'c'].map((id) => ({ id, minutes: 20, price: 50, part: true })),
		sign: (key) => tables.find((one) => one.key === key) ?? null
	};
}

const saw = (sign: string, outcome: string, entry = sign, epoch = 0): Observation => ({
	sign,
	outcome,
	entry,
	epoch
});

describe('belief', () => {
	it('tells how well each reading fits by its place, though one before it tells nothing of its own', () => {
		const model = threeFaults();
		const alone = believe(model, [saw('ring', 'good'), saw('volts', 'low')]).fit;
		const behind = believe(model, [saw('no such sign', 'x'), saw('ring', 'good'), saw('volts', 'low')]).fit;
		expect(behind).toEqual([1, ...alone]);
	});

	it('is Bayes’ rule over nothing, every fault and every pair, worked out by hand', () => {
		const model = threeFaults();
		const { states, nothing, present } = believe(model, [saw('volts', 'low'), saw('drive', 'bad')]);
		const [priorA, priorB, priorC] = [0.5, 0.3, 0.2];
		const scale = 0.1 / (priorA * priorB + priorA * priorC + priorB * priorC);
		const joint: Record<string, number> = {
			'': 0.05 * 0.01 * 0.01,
			a: 0.85 * priorA * 0.89 * 0.95,
			b: 0.85 * priorB * 0.01 * 0.95,
			c: 0.85 * priorC * 0.01 * 0.9,
			ab:
				scale *
				priorA *
				priorB *
				pairChance(0.01, 0.98, { chance: 0.89, good: 0.1 }, { chance: 0.01, good: 0.1 }) *
				pairChance(0.01, 0.99, { chance: 0.95, good: 0.05 }, { chance: 0.95, good: 0.05 }),
			ac:
				scale *
				priorA *
				priorC *
				pairChance(0.01, 0.98, { chance: 0.89, good: 0.1 }, { chance: 0.01, good: 0.98 }) *
				pairChance(0.01, 0.99, { chance: 0.95, good: 0.05 }, { chance: 0.9, good: 0.1 }),
			bc:
				scale *
				priorB *
				priorC *
				pairChance(0.01, 0.98, { chance: 0.01, good: 0.1 }, { chance: 0.01, good: 0.98 }) *
				pairChance(0.01, 0.99, { chance: 0.95, good: 0.05 }, { chance: 0.9, good: 0.1 })
		};
		const total = Object.values(joint).reduce((x, y) => x + y, 0);
		for (const { faults, p } of states) {
			const name = faults.map((fault) => 'abc'[fault]).join('');
			expect(p, name).toBeCloseTo((joint[name] ?? 0) / total, 6);
		}
		expect(nothing).toBeCloseTo((joint[''] ?? 0) / total, 6);
		expect(present[0]).toBeCloseTo(((joint.a ?? 0) + (joint.ab ?? 0) + (joint.ac ?? 0)) / total, 6);
	});

	it('does not depend on the order in which things were seen', () => {
		const model = threeFaults();
		const all = [saw('volts', 'low'), saw('drive', 'bad'), saw('ring', 'bad')];
		const [one, other] = [believe(model, all), believe(model, [...all].reverse())];
		expect(one.present).toEqual(Float64Array.from(other.present, (p, i) => one.present[i] ?? p));
		for (const [i, p] of one.present.entries()) expect(p).toBeCloseTo(other.present[i] ?? 0, 12);
	});

	it('a chance of two faults at once is a chance, and is the one’s where the other shows nothing', () => {
		const part = fc.double({ min: 0.01, max: 0.98, noNaN: true });
		fc.assert(
			fc.property(part, part, part, (soundGood, goodA, goodB) => {
				const one = { good: Math.min(goodA, soundGood), chance: 1 - Math.min(goodA, soundGood) };
				const two = { good: Math.min(goodB, soundGood), chance: 1 - Math.min(goodB, soundGood) };
				const bad = pairChance(1 - soundGood, soundGood, one, two);
				const good = pairChance(
					soundGood,
					soundGood,
					{ good: one.good, chance: one.good },
					{ good: two.good, chance: two.good }
				);
				expect(bad + good).toBeCloseTo(1, 6);
				expect(bad).toBeGreaterThanOrEqual(Math.max(one.chance, two.chance) - 1e-9);
				const alone = pairChance(1 - soundGood, soundGood, one, { good: soundGood, chance: 1 - soundGood });
				expect(alone).toBeCloseTo(one.chance, 6);
			})
		);
	});

	it('a repair that cures takes its fault away: what is seen afterwards speaks for nothing or for another', () => {
		const model = threeFaults();
		const before = [saw('volts', 'low'), saw('drive', 'bad')];
		const cured = (fault: number) => (fault === 0 ? 1 : Infinity);
		expect(believe(model, before, cured, 1).present[0], 'before it is proven').toBe(0);
		const good = believe(model, [...before, saw('drive', 'good', 'after', 1)], cured);
		expect(good.nothing).toBeGreaterThan(0.97);
		expect(good.present[0]).toBe(0);
		const bad = believe(model, [...before, saw('drive', 'bad', 'after', 1)], cured);
		expect(bad.nothing).toBeLessThan(0.5);
		expect((bad.present[1] ?? 0) + (bad.present[2] ?? 0)).toBeGreaterThan(0.5);
	});

	it('what a repair of ours may have left behind shows only from then on, worked out by hand', () => {
		const model = threeFaults();
		const cured = (fault: number) => (fault === 0 ? 1 : Infinity);
		// The ring was good; after the repair of the first fault it is bad.
		const seen = [saw('ring', 'good'), saw('ring', 'bad', 'look again', 1)];
		const left = { fault: 2, entry: 'repair', from: 1, until: Infinity, prior: 0.03 };
		const scale = 0.1 / (0.5 * 0.3 + 0.5 * 0.2 + 0.3 * 0.2);
		const cc = pairChance(0.05, 0.95, { chance: 0.8, good: 0.2 }, { chance: 0.8, good: 0.2 });
		const [sound, bad, came] = [0.95 * 0.05, 0.2 * 0.8, 0.95 * 0.8];
		const withoutC = (0.05 + 0.85 * (0.5 + 0.3) + scale * 0.15) * sound;
		const withC = (0.85 * 0.2 + scale * (0.1 + 0.06)) * bad;
		const madeByUs = 0.03 * ((0.05 + 0.85 * 0.8) * came + 0.85 * 0.2 * 0.2 * cc);
		const total = withoutC + withC + madeByUs;
		const belief = believe(model, seen, cured, 1, [left]);
		expect(belief.madeByUs[2]).toBeCloseTo(madeByUs / total, 6);
		expect(belief.present[2]).toBeCloseTo((withC + madeByUs) / total, 6);
		expect(believe(model, seen, cured, 1).madeByUs[2]).toBe(0);
		const mended = believe(model, seen, cured, 2, [{ ...left, until: 2 }]);
		expect(mended.madeByUs[2], 'cured again').toBe(0);
	});

	it('takes an outcome that nobody has met as the last of an open list', () => {
		const model = threeFaults();
		expect(believe(model, [saw('volts', 'sideways')]).present[1]).toBeCloseTo(
			believe(model, [saw('volts', 'high')]).present[1] ?? 0
		);
	});
});

describe('explaining', () => {
	it('names the entries that moved a fault, the largest first, and leaves out those that did not', () => {
		const model = threeFaults();
		const moved = explain(model, [saw('volts', 'low', 'meter'), saw('ring', 'good', 'look')], 0);
		expect(moved[0]?.entry).toBe('meter');
		expect(moved[0]?.bits).toBeGreaterThan(2);
		expect(moved[0]?.observations).toEqual([{ sign: 'volts', outcome: 'low' }]);
		expect(moved[0]?.without).toBeLessThan(0.7);
	});

	it('names the repair that may have left it behind', () => {
		const model = threeFaults();
		const cured = (fault: number) => (fault === 0 ? 1 : Infinity);
		const seen = [saw('volts', 'low'), saw('ring', 'good'), saw('ring', 'bad', 'look again', 1)];
		const left = [{ fault: 2, entry: 'our repair', from: 1, until: Infinity, prior: 0.03 }];
		const repair = explain(model, seen, 2, cured, new Map(), 1, left).find(
			({ entry }) => entry === 'our repair'
		);
		expect(repair?.bits).toBeGreaterThan(1);
	});

	it('names an entry that only changed the odds', () => {
		const model = threeFaults();
		const rare = {
			...model,
			faults: model.faults.map((one, i) => ({ ...one, prior: i === 0 ? one.prior / 8 : one.prior }))
		};
		const seen = [saw('volts', 'low', 'meter')];
		const moved = explain(model, seen, 0, undefined, new Map([['work by others', rare]]));
		const work = moved.find(({ entry }) => entry === 'work by others');
		expect(work?.bits).toBeGreaterThan(1);
		expect(work?.observations).toEqual([]);
	});
});

describe('a contradiction', () => {
	it('is a good and a bad reading that no fault explains together', () => {
		const model = threeFaults();
		const seen = [saw('drive', 'good', 'first'), saw('volts', 'low', 'second')];
		const [found] = contradictions(model, seen, believe(model, seen));
		expect(found).toMatchObject({ good: 0, bad: 1 });
		expect(found?.best).toBeLessThan(0.2);
	});

	it('is none where two faults explain two bad readings', () => {
		const model = threeFaults();
		const seen = [saw('volts', 'low', 'first'), saw('ring', 'bad', 'second')];
		expect(contradictions(model, seen, believe(model, seen))).toEqual([]);
	});
});

describe('the next step', () => {
	const policy = {
		...PROVE_FIRST,
		confidence: 0,
		tryConfidence: 0,
		wrongPartMinutes: 120,
		unresolvedMinutes: 300
	};

	it('costs within 5 % of the least that dynamic programming finds, over twenty small vehicles', () => {
		let [ours, least] = [0, 0];
		for (let seed = 1; seed <= 20; seed++) {
			const small = smallModel(randomFrom(seed), 4, 3);
			const optimal = optimalCost(small, policy);
			const cost = costOfChoosing(
				small,
				(situation, left, accessGained) => {
					const { test, mending } = decide(small.model, situation, left, policy, accessGained);
					return test ? { test: test.test.id } : { repair: mending[0]?.repair ?? 0 };
				},
				policy
			);
			expect(cost, `seed ${seed}`).toBeGreaterThanOrEqual(optimal - 1e-6);
			expect(cost / optimal, `seed ${seed}`).toBeLessThan(1.1);
			ours += cost;
			least += optimal;
		}
		expect(ours / least).toBeLessThan(1.05);
	});

	it('counts what has to be got to once', () => {
		const test = { id: 'x', minutes: 4, access: [{ id: 'wheel', minutes: 6 }], signs: [] };
		expect(minutesOf(test, new Set())).toBe(10);
		expect(minutesOf(test, new Set(['wheel']))).toBe(4);
	});

	it('orders no part below the confidence that the policy asks for while a test can still tell', () => {
		const model = threeFaults();
		const situation = situationOf(model, believe(model, [saw('drive', 'bad')]));
		const tests = [{ id: 'volts', minutes: 300, access: [], signs: ['volts'] }];
		const proving = decide(model, situation, tests, { ...PROVE_FIRST, wrongPartMinutes: 0 }, new Set());
		expect(proving.test?.test.id).toBe('volts');
		const guessing = decide(
			model,
			situation,
			tests,
			{ ...TRACK_RECORD, confidence: 0.4, tryConfidence: 0.4 },
			new Set()
		);
		expect(guessing.test).toBeNull();
		expect(guessing.mending[0]).toMatchObject({ repair: 0 });
	});

	it('tells what each outcome would mean, with chances that add up', () => {
		const model = threeFaults();
		const situation = situationOf(model, believe(model, [saw('drive', 'bad')]));
		const { ranked } = decide(
			model,
			situation,
			[{ id: 'volts', minutes: 5, access: [], signs: ['volts'] }],
			PROVE_FIRST,
			new Set()
		);
		const outcomes = ranked[0]?.outcomes ?? [];
		expect(outcomes.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 3);
		expect(Math.min(...outcomes.map(({ bitsLeft }) => bitsLeft))).toBeLessThan(0.9);
	});

	it('mends in the order of probability over cost', () => {
		const model = threeFaults();
		const repairs = model.repairs.map((repair, i) => (i === 0 ? { ...repair, minutes: 400 } : repair));
		const dear = { ...model, repairs };
		const situation = situationOf(dear, believe(dear, []));
		const order = mendingCost(dear, situation, situation.weight, policy).steps.map(({ repair }) => repair);
		expect(order).toEqual([1, 2, 0]);
	});

	it('says of each repair how likely it ends it: shares of one whole, by going through every state', () => {
		for (let seed = 1; seed < 30; seed++) {
			const { model, situation } = smallModel(randomFrom(seed), 5, 4);
			const { steps } = mendingCost(model, situation, situation.weight, policy);
			const whole = situation.faults.reduce(
				(sum, list, state) => sum + (list.length > 0 ? (situation.weight[state] ?? 0) : 0),
				0
			);
			for (const [at, { ends }] of steps.entries()) {
				const done = (upTo: number) => {
					const repairs = steps.slice(0, upTo).map(({ repair }) => repair);
					const isCured = (fault: number) =>
						model.faults[fault]?.curedBy.some((one) => repairs.includes(one)) ?? false;
					return situation.faults.reduce(
						(sum, list, state) =>
							sum + (list.length > 0 && list.every(isCured) ? (situation.weight[state] ?? 0) : 0),
						0
					);
				};
				expect(ends).toBeCloseTo((done(at + 1) - done(at)) / whole, 9);
			}
		}
	});
});

describe('policy', () => {
	it('asks for more certainty and fears a wrong part more from track record to prove first', () => {
		expect(policyAt(0)).toMatchObject({ confidence: TRACK_RECORD.confidence, wrongPartMinutes: 30 });
		expect(policyAt(1).confidence).toBeCloseTo(PROVE_FIRST.confidence);
		expect(policyAt(0.5).confidence).toBeGreaterThan(policyAt(0.25).confidence);
		expect(policyAt(2)).toEqual(policyAt(1));
	});
});

describe('minutes to go', () => {
	it('are the mean and the range of playing the case to its end; a sure case has no range', () => {
		const small = smallModel(randomFrom(3), 5, 4);
		const { mean, low, high, testing } = minutesToGo(
			small.model,
			small.situation,
			small.candidates,
			PROVE_FIRST,
			new Set(),
			randomFrom(9)
		);
		expect(low).toBeLessThanOrEqual(mean);
		expect(mean).toBeLessThanOrEqual(high);
		expect(testing).toBeGreaterThan(0);
		const sure = { ...small.situation, weight: Float64Array.from([1, 0, 0, 0, 0]) };
		const known = minutesToGo(small.model, sure, small.candidates, PROVE_FIRST, new Set(), randomFrom(9));
		const repair = small.model.repairs[small.model.faults[0]?.curedBy[0] ?? 0];
		expect(known.mean).toBeCloseTo((repair?.minutes ?? 0) + PROVE_FIRST.provingMinutes);
		expect(known.low).toBeCloseTo(known.high);
	});
});

describe('a track record', () => {
	it('begins at the library’s odds and ends at the shop’s', () => {
		const odds = { lead: 1, sensor: 3 };
		expect(learnedWeights(odds, {}, 10)).toEqual(odds);
		const learned = learnedWeights(odds, { lead: 6, sensor: 3 }, 10);
		expect((learned.lead ?? 0) / (learned.sensor ?? 1)).toBeCloseTo((2.5 + 6) / (7.5 + 3));
		const many = learnedWeights(odds, { lead: 6000, sensor: 3000 }, 10);
		expect((many.lead ?? 0) / (many.sensor ?? 1)).toBeCloseTo(2, 1);
		expect(() => learnedWeights(odds, { lead: -1 }, 10)).toThrow(RangeError);
	});
});

describe('separability', () => {
	it('names faults that no test tells apart, and whether it matters', () => {
		const model = threeFaults();
		expect(inseparable(model, ['volts', 'ring'], [0, 1, 2])).toEqual([]);
		expect(inseparable(model, ['ring', 'drive'], [0, 1, 2])).toMatchObject([
			{ a: 0, b: 1, sameRepair: false }
		]);
	});
});

describe('the smallest explanations', () => {
	/** Faults as lists of the signs that they make bad. */
	function explaining(...faults: string[][]): PathModel {
		const signs = [...new Set(faults.flat())];
		const tables = new Map(
			signs.map((key) => {
				const row = (bad: boolean) => (bad ? [0.1, 0.9] : [0.98, 0.02]);
				const rows = faults.map((shows) => row(shows.includes(key)));
				return [
					key,
					{
						key,
						outcomes: ['good', 'bad'],
						good: 0,
						sound: Float64Array.from(row(false)),
						chance: Float64Array.from([...rows, ...rows].flat()),
						acts: Uint8Array.from([...faults, ...faults], (shows) => Number(shows.includes(key)))
					} satisfies SignTable
				];
			})
		);
		return {
			faults: faults.map((_, i) => ({ id: String(i), prior: 1 / faults.length, curedBy: [] })),
			rows: faults.map((_, fault) => ({ fault, share: 1 })),
			nothing: 0.02,
			pairs: 0.05,
			repairs: [],
			sign: (key) => tables.get(key) ?? null
		};
	}
	const bad = (...signs: string[]): Observation[] =>
		signs.map((sign) => ({ sign, outcome: 'bad', entry: sign, epoch: 0 }));
	const sets = (model: PathModel, seen: Observation[]) =>
		smallestExplanations(model, seen, believe(model, seen)).map(({ faults }) => faults);

	it('are one fault where one explains all, though two together would as well', () => {
		const model = explaining(['a'], ['b'], ['a', 'b'], ['c']);
		expect(sets(model, bad('a', 'b'))).toEqual([[2]]);
	});

	it('are two where no single one does, never one that adds nothing', () => {
		const model = explaining(['a', 'b'], ['b'], ['c']);
		expect(sets(model, bad('a', 'b', 'c'))).toEqual([[0, 2]]);
	});

	it('name one of those that explain the same, and how many others would do', () => {
		const model = explaining(['a'], ['a'], ['a'], ['b']);
		const seen = bad('a');
		const [first, ...rest] = smallestExplanations(model, seen, believe(model, seen));
		expect(first).toMatchObject({ others: 2 });
		expect(first?.p).toBeGreaterThan(0.8);
		expect(rest).toEqual([]);
	});

	it('do not count a good reading, and say nothing where three faults are too few', () => {
		const model = explaining(['a'], ['b'], ['c'], ['d']);
		expect(sets(model, [{ sign: 'a', outcome: 'good', entry: '', epoch: 0 }])).toEqual([]);
		expect(sets(model, bad('a', 'b', 'c', 'd'))).toEqual([]);
		expect(sets(model, bad('a', 'b', 'c'))).toEqual([[0, 1, 2]]);
	});

	it('agree with trying every set, on random models', () => {
		fc.assert(
			fc.property(
				fc.array(fc.subarray(['a', 'b', 'c', 'd', 'e'], { minLength: 1 }), { minLength: 1, maxLength: 7 }),
				(faults) => {
					const model = explaining(...faults);
					const signs = [...new Set(faults.flat())];
					const covers = (set: number[]) => signs.every((sign) => set.some((i) => faults[i]?.includes(sign)));
					const every = faults.reduce<number[][]>(
						(list, _, i) => [...list, ...list.map((set) => [...set, i])],
						[[]]
					);
					const least = Math.min(...every.filter(covers).map((set) => set.length));
					const found = sets(model, bad(...signs));
					if (least > 3) expect(found).toEqual([]);
					else {
						expect(found[0]).toHaveLength(least);
						for (const set of found) expect(covers(set)).toBe(true);
					}
				}
			)
		);
	});
});
