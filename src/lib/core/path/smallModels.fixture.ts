import type { Candidate } from './nextTest';
import { minutesOf } from './nextTest';
import type { PathModel, SignTable } from './model';
import { repairMinutes, type Policy } from './repairCost';
import type { Situation } from './situation';

/** A made-up vehicle of a few faults and tests, small enough to be solved to the end. */
export interface SmallModel {
	model: PathModel;
	candidates: Candidate[];
	situation: Situation;
}

/** @param random from 0 up to 1 */
export function smallModel(random: () => number, faultCount = 5, testCount = 4): SmallModel {
	const between = (low: number, high: number) => low + random() * (high - low);
	const raw = Array.from({ length: faultCount }, () => between(0.2, 2));
	const total = raw.reduce((a, b) => a + b, 0);
	const repairs = raw.map((_, i) => ({
		id: `repair ${i}`,
		minutes: between(10, 80),
		price: between(0, 200),
		part: random() < 0.6
	}));
	// Some faults share a repair, as a dead and a dull sensor do.
	const curedBy = raw.map((_, i) => [i > 0 && random() < 0.25 ? i - 1 : i]);
	const faults = raw.map((weight, i) => ({
		id: `fault ${i}`,
		prior: weight / total,
		curedBy: curedBy[i] ?? [i]
	}));
	const tables = new Map<string, SignTable>();
	const candidates = Array.from({ length: testCount }, (_, t): Candidate => {
		const outcomes = random() < 0.3 ? ['good', 'low', 'high'] : ['good', 'bad'];
		const width = outcomes.length;
		const chance = new Float64Array(2 * faultCount * width);
		for (let f = 0; f < faultCount; f++) {
			const list = outcomes.map(() => random() ** 4 + 0.01);
			const all = list.reduce((a, b) => a + b, 0);
			for (const [o, x] of list.entries())
				for (const row of [f, faultCount + f]) chance[row * width + o] = x / all;
		}
		const sound = Float64Array.from(outcomes, (_o, o) => (o === 0 ? 0.98 : 0.02 / (width - 1)));
		const acts = new Uint8Array(2 * faultCount).fill(1);
		tables.set(`sign ${t}`, { key: `sign ${t}`, outcomes, good: 0, sound, chance, acts });
		const access =
			random() < 0.5 ? [{ id: `access ${Math.floor(random() * 2)}`, minutes: between(2, 15) }] : [];
		return { id: `test ${t}`, minutes: between(2, 15), access, signs: [`sign ${t}`] };
	});
	const model: PathModel = {
		faults,
		rows: faults.map((_, fault) => ({ fault, share: 1 })),
		nothing: 0,
		pairs: 0,
		repairs,
		sign: (key) => tables.get(key) ?? null
	};
	const situation: Situation = {
		weight: Float64Array.from(faults, ({ prior }) => prior),
		faults: faults.map((_, i) => [i]),
		rows: Int32Array.from(faults.keys()),
		group: Int32Array.from(curedBy, ([repair]) => repair ?? 0),
		groups: faultCount
	};
	return { model, candidates, situation };
}

/** One decision: a repair by index, or a test by id. */
export type Choice = { repair: number } | { test: string };
type Chooser = (
	situation: Situation,
	left: readonly Candidate[],
	accessGained: ReadonlySet<string>
) => Choice;

const totalOf = (list: Float64Array) => list.reduce((a, b) => a + b, 0);

function afterRepair({ model, situation }: SmallModel, weight: Float64Array, repair: number, policy: Policy) {
	const next = Float64Array.from(weight, (w, i) =>
		situation.faults[i]?.some((fault) => model.faults[fault]?.curedBy.includes(repair)) ? 0 : w
	);
	const wrong = model.repairs[repair]?.part ? totalOf(next) * policy.wrongPartMinutes : 0;
	return { next, minutes: totalOf(weight) * repairMinutes(model, repair, policy) + wrong };
}

function afterTest({ model }: SmallModel, weight: Float64Array, test: Candidate): Float64Array[] {
	const table = model.sign(test.signs[0] ?? '');
	if (!table) return [];
	return table.outcomes.map((_, o) =>
		Float64Array.from(weight, (w, row) => w * (table.chance[row * table.outcomes.length + o] ?? 0))
	);
}

const withPaid = (accessGained: ReadonlySet<string>, test: Candidate) =>
	new Set([...accessGained, ...test.access.map(({ id }) => id)]);

/** Exact expected minutes of a way of choosing, by going through everything that can happen. */
export function costOfChoosing(
	small: SmallModel,
	choose: Chooser,
	policy: Policy,
	weight = small.situation.weight,
	left: readonly Candidate[] = small.candidates,
	accessGained: ReadonlySet<string> = new Set()
): number {
	const total = totalOf(weight);
	if (total < 1e-9) return 0;
	const here = { ...small.situation, weight: weight.map((w) => w / total) };
	const choice = choose(here, left, accessGained);
	if ('repair' in choice) {
		const { next, minutes } = afterRepair(small, weight, choice.repair, policy);
		return minutes + costOfChoosing(small, choose, policy, next, left, accessGained);
	}
	const test = left.find(({ id }) => id === choice.test);
	if (!test) throw new Error(`${choice.test} is not left`);
	const rest = left.filter((one) => one !== test);
	return afterTest(small, weight, test).reduce(
		(sum, next) => sum + costOfChoosing(small, choose, policy, next, rest, withPaid(accessGained, test)),
		total * minutesOf(test, accessGained)
	);
}

/** The least expected minutes that any way of choosing can reach: dynamic programming over every belief. */
export function optimalCost(
	small: SmallModel,
	policy: Policy,
	weight = small.situation.weight,
	left: readonly Candidate[] = small.candidates,
	accessGained: ReadonlySet<string> = new Set()
): number {
	const total = totalOf(weight);
	if (total < 1e-9) return 0;
	let best = Infinity;
	const repairs = new Set(
		[...weight.keys()].flatMap((i) =>
			(weight[i] ?? 0) > 0
				? (small.situation.faults[i] ?? []).flatMap((f) => small.model.faults[f]?.curedBy ?? [])
				: []
		)
	);
	for (const repair of repairs) {
		const { next, minutes } = afterRepair(small, weight, repair, policy);
		if (minutes >= best) continue;
		best = Math.min(best, minutes + optimalCost(small, policy, next, left, accessGained));
	}
	for (const test of left) {
		const rest = left.filter((one) => one !== test);
		let minutes = total * minutesOf(test, accessGained);
		for (const next of afterTest(small, weight, test)) {
			if (minutes >= best) break;
			minutes += optimalCost(small, policy, next, rest, withPaid(accessGained, test));
		}
		best = Math.min(best, minutes);
	}
	return best;
}
