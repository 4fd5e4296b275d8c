import { pairOf, type Belief } from './believe';
import type { PathModel, SignTable } from './model';

/**
 * What is left to decide: the likeliest states with their weights, and by repair which of them it brings further. Weights
 * need not add up to one while a test's outcomes are weighed.
 */
export interface Situation {
	weight: Float64Array;
	/** By state: its faults that are still there. */
	faults: readonly (readonly number[])[];
	rows: Int32Array;
	/** By state: number of the class of states that the same repairs cure. */
	group: Int32Array;
	groups: number;
}

/** States beyond this share of the probability decide nothing. */
const ENOUGH = 0.998;
const MOST_STATES = 200;

/** The situation that a belief leaves. */
export function situationOf(model: PathModel, belief: Belief): Situation {
	const kept: Belief['states'] = [];
	let sum = 0;
	for (const state of belief.states) {
		if (sum >= ENOUGH || kept.length >= MOST_STATES) break;
		kept.push(state);
		sum += state.p;
	}
	const groups = new Map<string, number>();
	const faults = kept.map(({ left }) => left);
	const group = Int32Array.from(faults, (left) => {
		const key = left
			.map((fault) => (model.faults[fault]?.curedBy ?? []).join('.'))
			.sort()
			.join('+');
		const known = groups.get(key) ?? groups.size;
		groups.set(key, known);
		return known;
	});
	// What is cured already shows like a sound vehicle: the row is only looked up for a fault that is left.
	return {
		weight: Float64Array.from(kept, ({ p }) => p / sum),
		faults,
		rows: Int32Array.from(kept, ({ row }, i) => (faults[i]?.length === 1 && row >= 0 ? row : -1)),
		group,
		groups: groups.size
	};
}

/** The heaviest states alone, their weights made to add up to one. */
export function likeliest(situation: Situation, most: number): Situation {
	const { weight, faults, rows, group, groups } = situation;
	const kept = [...weight.keys()].sort((a, b) => (weight[b] ?? 0) - (weight[a] ?? 0)).slice(0, most);
	const total = kept.reduce((sum, i) => sum + (weight[i] ?? 0), 0);
	return {
		weight: Float64Array.from(kept, (i) => (weight[i] ?? 0) / total),
		faults: kept.map((i) => faults[i] ?? []),
		rows: Int32Array.from(kept, (i) => rows[i] ?? -1),
		group: Int32Array.from(kept, (i) => group[i] ?? 0),
		groups
	};
}

/** Chances of a sign's outcomes in every state: `[outcome][state]`. */
export function chancesIn(model: PathModel, table: SignTable, { faults, rows }: Situation): Float64Array[] {
	const width = table.outcomes.length;
	const lists = table.outcomes.map(() => new Float64Array(faults.length));
	for (let i = 0; i < faults.length; i++) {
		const [a = -1, b] = faults[i] as readonly number[];
		const single = rows[i] as number;
		const at = (single >= 0 ? single : model.rows.length + a) * width;
		for (let o = 0; o < width; o++) {
			const list = lists[o] as Float64Array;
			if (a < 0) list[i] = table.sound[o] as number;
			else if (b === undefined) list[i] = table.chance[at + o] as number;
			else list[i] = pairOf(table, o, model.rows.length + a, model.rows.length + b);
		}
	}
	return lists;
}

/** Room for the sums of the classes, used anew by every weight. */
let sums = new Float64Array(0);

function noSums(groups: number): void {
	if (sums.length < groups) sums = new Float64Array(groups);
	else sums.fill(0, 0, groups);
}

function bitsOfSums(groups: number, total: number): number {
	let bits = 0;
	for (let at = 0; at < groups; at++) {
		const p = (sums[at] as number) / total;
		if (p > 0) bits -= p * Math.log2(p);
	}
	return bits;
}

/** Entropy in bits of the classes that repairs tell apart. @param weight need not add up to one */
export function groupBits({ group, groups }: Situation, weight: Float64Array, total: number): number {
	if (!(total > 0)) return 0;
	noSums(groups);
	for (let i = 0; i < weight.length; i++) {
		const at = group[i] as number;
		sums[at] = (sums[at] as number) + (weight[i] as number);
	}
	return bitsOfSums(groups, total);
}

/** {@link groupBits} of a weight after an outcome, and how likely that is. @param chance of the outcome, by state */
export function groupBitsAfter(
	{ group, groups }: Situation,
	weight: Float64Array,
	chance: Float64Array
): { p: number; bits: number } {
	noSums(groups);
	let p = 0;
	for (let i = 0; i < weight.length; i++) {
		const w = (weight[i] as number) * (chance[i] as number);
		const at = group[i] as number;
		sums[at] = (sums[at] as number) + w;
		p += w;
	}
	return { p, bits: p > 0 ? bitsOfSums(groups, p) : 0 };
}
