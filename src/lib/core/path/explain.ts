import { believe, type LeftBehind } from './believe';
import type { Observation, PathModel } from './model';

/** What one entry of the thread did to the probability of a fault. */
export interface Moved {
	entry: string;
	/** The probability if this entry had not been there. */
	without: number;
	/** Change of the logarithm of the odds, in bits: +1 = twice as likely for it. */
	bits: number;
	/** What of the entry counted. */
	observations: { sign: string; outcome: string }[];
}

const LEAST_BITS = 0.05;
const logOdds = (p: number) => Math.log2(Math.max(1e-9, p) / Math.max(1e-9, 1 - p));

/**
 * By how much each entry moved a fault's probability: the whole belief is worked out once more without it. The largest
 * first; entries that moved nothing are left out.
 *
 * @param odds by entry that changed the odds before anything was seen: the model as it is without it
 */
export function explain(
	model: PathModel,
	observations: readonly Observation[],
	fault: number,
	curedFrom: (fault: number) => number = () => Infinity,
	odds: ReadonlyMap<string, PathModel> = new Map(),
	epochNow = 0,
	repairInduced: readonly LeftBehind[] = []
): Moved[] {
	const believed = (of: PathModel, seen: readonly Observation[], left: readonly LeftBehind[]) =>
		believe(of, seen, curedFrom, epochNow, left).present[fault] ?? 0;
	const now = believed(model, observations, repairInduced);
	const told = [...observations, ...repairInduced].map(({ entry }) => entry);
	const entries = [...new Set([...told, ...odds.keys()])];
	return entries
		.map((entry): Moved => {
			const rest = observations.filter((one) => one.entry !== entry);
			const left = repairInduced.filter((one) => one.entry !== entry);
			const without = believed(odds.get(entry) ?? model, rest, left);
			const told = observations.filter((one) => one.entry === entry && acts(model, one.sign, fault));
			return {
				entry,
				without,
				bits: logOdds(now) - logOdds(without),
				observations: told.map(({ sign, outcome }) => ({ sign, outcome }))
			};
		})
		.filter(({ bits }) => Math.abs(bits) > LEAST_BITS)
		.sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
}

const acts = (model: PathModel, sign: string, fault: number): boolean =>
	model.sign(sign)?.acts[model.rows.length + fault] === 1;
