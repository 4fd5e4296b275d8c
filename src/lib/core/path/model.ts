/**
 * What can be wrong, what can be seen, and how likely each is seen under each: numbers only. Rows are a fault at a place in
 * one of its bins (slight, plain, now and then), then each fault at a place over all its bins, for pairs.
 */
export interface PathModel {
	/** Faults at places. */
	faults: readonly ModelFault[];
	/** Rows of single hypotheses: which fault, and its share of the fault's prior. */
	rows: readonly { fault: number; share: number }[];
	/** Hypotheses that stand for whatever is not described, by index: each shows what others of its place show on the whole. */
	background?: ReadonlySet<number>;
	/** By fault: the one of these that stands for its place. */
	backgroundOf?: readonly number[];
	/** Prior of a vehicle with nothing wrong any more. */
	nothing: number;
	/** Prior of all pairs of faults together. */
	pairs: number;
	sign(key: string): SignTable | null;
	repairs: readonly ModelRepair[];
}

export interface ModelFault {
	/** `gap-rust@rear-left`. */
	id: string;
	prior: number;
	/** Indices of the repairs that cure it. */
	curedBy: readonly number[];
}

/** A repair at a place. */
export interface ModelRepair {
	id: string;
	minutes: number;
	price: number;
	part: boolean;
}

/** Chances of the outcomes of one sign. Each row's chances add up to one. */
export interface SignTable {
	key: string;
	outcomes: readonly string[];
	good: number;
	/** By outcome, of a sound vehicle. */
	sound: Float64Array;
	/** By single row, then by fault over its bins: `chance[row * outcomes + outcome]`, length (rows + faults) · outcomes. */
	chance: Float64Array;
	/** By row: whether it differs from a sound vehicle at all. */
	acts: Uint8Array;
}

/** Something that was seen, at a moment of the case. */
export interface Observation {
	sign: string;
	outcome: string;
	/** Entry of the thread that it came from. */
	entry: string;
	/** How many repairs had been done before. */
	epoch: number;
}

/** Last outcome of an open list. */
export const SOMETHING_ELSE = 'something else';
/** Of an open list: whatever else is met of a kind, `yaw-*` for `yaw-29`. */
export const otherOf = (kind: string): string => `${kind}-*`;

/** Index of an outcome; one that nobody has met counts as another of its kind, or where the kind is new as the last. */
export function outcomeIndex({ outcomes }: SignTable, outcome: string): number {
	const at = outcomes.indexOf(outcome);
	if (at >= 0) return at;
	const other = outcomes.indexOf(otherOf(outcome.slice(0, outcome.lastIndexOf('-'))));
	return other < 0 ? outcomes.length - 1 : other;
}

/**
 * Chance of an outcome where two faults are there at once. Each acts on its own with the probability that it changes what a
 * sound vehicle shows; where both do, either is seen as often (noisy-or with a tie).
 *
 * With n = P(good)/P_sound(good) the share in which a fault does not act, and o' its own part of an outcome:
 * P = n_a·n_b·sound + a'·(1+n_b)/2 + b'·(1+n_a)/2.
 */
export function pairChance(sound: number, soundGood: number, a: Seen, b: Seen): number {
	const [na, nb] = [Math.min(1, a.good / soundGood), Math.min(1, b.good / soundGood)];
	const ownA = Math.max(0, a.chance - na * sound);
	const ownB = Math.max(0, b.chance - nb * sound);
	return na * nb * sound + (ownA * (1 + nb)) / 2 + (ownB * (1 + na)) / 2;
}

interface Seen {
	chance: number;
	/** Chance of the sound vehicle's usual outcome. */
	good: number;
}
