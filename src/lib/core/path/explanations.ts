import type { Belief } from './believe';
import { outcomeIndex, type Observation, type PathModel } from './model';

/** Faults that together explain everything that is not as on a sound vehicle. */
export interface Explanation {
	faults: number[];
	/** Other faults that would do in their places, as many as a set of this size has. */
	others: number;
	/** Of the belief: probability that exactly these, or others like them, are there. */
	p: number;
}

/** A fault explains what it shows at least so often … */
const EXPLAINS_FROM = 0.15;
/** … and so many times as often as a sound vehicle. */
const EXPLAINS_TIMES = 4;
const MOST_SIGNS = 30;
const MOST_FAULTS = 3;

/**
 * The smallest sets of faults that explain all bad readings: first one fault alone, then two, then three (a minimal hitting
 * set by exhaustion over faults that explain different things). The likeliest first. Empty where three are too few.
 *
 * @param which observations that have to be explained
 */
export function smallestExplanations(
	model: PathModel,
	which: readonly Observation[],
	belief: Belief,
	most = 3
): Explanation[] {
	const bad = which.filter(({ sign, outcome }) => {
		const table = model.sign(sign);
		return table !== null && outcomeIndex(table, outcome) !== table.good;
	});
	if (bad.length === 0 || bad.length > MOST_SIGNS) return [];
	const all = 2 ** bad.length - 1;
	const byMask = kinds(model, bad, belief);
	const masks = [...byMask.keys()];
	for (let size = 1; size <= MOST_FAULTS; size++) {
		const found = coverings(masks, all, size).map((set): Explanation => {
			const groups = set.map((mask) => byMask.get(mask) ?? []);
			return {
				faults: groups.map((group) => group[0]?.fault ?? 0),
				others: groups.reduce((product, group) => product * group.length, 1) - 1,
				p: weightOf(
					groups.map((group) => new Set(group.map(({ fault }) => fault))),
					belief
				)
			};
		});
		if (found.length > 0) return found.sort((a, b) => b.p - a.p).slice(0, most);
	}
	return [];
}

/** Faults by what they explain, the likeliest of each kind first. */
function kinds(
	model: PathModel,
	bad: readonly Observation[],
	belief: Belief
): Map<number, { fault: number; p: number }[]> {
	const byMask = new Map<number, { fault: number; p: number }[]>();
	for (const fault of model.faults.keys()) {
		if (model.background?.has(fault)) continue;
		let mask = 0;
		for (const [i, { sign, outcome }] of bad.entries()) {
			const table = model.sign(sign);
			if (!table) continue;
			const at = outcomeIndex(table, outcome);
			const chance = table.chance[(model.rows.length + fault) * table.outcomes.length + at] ?? 0;
			if (chance >= EXPLAINS_FROM && chance >= EXPLAINS_TIMES * (table.sound[at] ?? 0)) mask += 2 ** i;
		}
		if (mask === 0) continue;
		const p = belief.present[fault] ?? 0;
		const group = byMask.get(mask);
		if (group) group.push({ fault, p });
		else byMask.set(mask, [{ fault, p }]);
	}
	for (const group of byMask.values()) group.sort((a, b) => b.p - a.p);
	return byMask;
}

/** Sets of a size that together cover all, none of them for nothing. */
function coverings(masks: readonly number[], all: number, size: number, from = 0, covered = 0): number[][] {
	if (size === 0) return covered === all ? [[]] : [];
	return masks.slice(from).flatMap((mask, i) => {
		const next = (covered | mask) >>> 0;
		if (next === covered) return [];
		return coverings(masks, all, size - 1, from + i + 1, next).map((rest) => [mask, ...rest]);
	});
}

/** Probability of the states that have one fault of each group and no other. */
const weightOf = (groups: readonly ReadonlySet<number>[], { states }: Belief): number =>
	states.reduce((sum, { faults, p }) => {
		const fits =
			faults.length === groups.length &&
			groups.every((group) => faults.some((fault) => group.has(fault))) &&
			faults.every((fault) => groups.some((group) => group.has(fault)));
		return fits ? sum + p : sum;
	}, 0);
