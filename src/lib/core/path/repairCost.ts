import type { PathModel } from './model';
import type { Situation } from './situation';

/** How a shop weighs what it may waste. All in minutes of work. */
export interface Policy {
	/** Probability that a part must reach before it may be ordered. */
	confidence: number;
	/** Minutes of work that buy one unit of the shop's money. */
	minutesPerMoney: number;
	/** What a wrong part costs besides its price: the second visit, the word lost. */
	wrongPartMinutes: number;
	/** After every repair: clear, drive, read again. */
	provingMinutes: number;
	/** What it costs to give a vehicle back unmended. */
	unresolvedMinutes: number;
}

export interface RepairStep {
	repair: number;
	/** That it cures something that is there, given that all before it did not help. */
	cures: number;
}

const MOST_STEPS = 12;

export const repairMinutes = (model: PathModel, repair: number, policy: Policy): number => {
	const one = model.repairs[repair];
	return one ? one.minutes + one.price * policy.minutesPerMoney + policy.provingMinutes : Infinity;
};

/**
 * Expected minutes of mending from here without another test: repairs in the order of probability over cost, until all
 * that is wrong is cured (the order is optimal for single faults: Smith's ratio rule). A wrong part costs its penalty on
 * top. Nothing wrong costs one proof.
 *
 * @returns expected minutes for the weight given, and the repairs in their order
 */
export function mendingCost(
	model: PathModel,
	situation: Situation,
	weight: Float64Array,
	policy: Policy
): { minutes: number; steps: RepairStep[] } {
	const left = situation.faults.map((faults) => [...faults]);
	const open = new Float64Array(weight);
	let minutes = 0;
	let total = 0;
	for (const [i, faults] of left.entries()) {
		if (faults.length === 0) {
			minutes += (open[i] ?? 0) * policy.provingMinutes;
			open[i] = 0;
		} else total += open[i] ?? 0;
	}
	const whole = total;
	const steps: RepairStep[] = [];
	while (total > whole * 1e-4 && total > 0 && steps.length < MOST_STEPS) {
		const gains = new Map<number, number>();
		for (const [i, faults] of left.entries()) {
			const p = open[i] ?? 0;
			if (p === 0) continue;
			const seen = new Set(faults.flatMap((fault) => model.faults[fault]?.curedBy ?? []));
			for (const repair of seen) gains.set(repair, (gains.get(repair) ?? 0) + p);
		}
		let best = -1;
		let bestRatio = 0;
		for (const [repair, gain] of gains) {
			const ratio = gain / costOf(model, repair, policy, gain / total);
			if (ratio > bestRatio) [best, bestRatio] = [repair, ratio];
		}
		if (best < 0) break;
		const cures = (gains.get(best) ?? 0) / total;
		minutes += total * costOf(model, best, policy, cures);
		steps.push({ repair: best, cures });
		for (const [i, faults] of left.entries()) {
			if (!open[i]) continue;
			left[i] = faults.filter((fault) => !(model.faults[fault]?.curedBy ?? []).includes(best));
			if (left[i]?.length === 0) {
				total -= open[i] ?? 0;
				open[i] = 0;
			}
		}
	}
	return { minutes: minutes + Math.max(0, total) * policy.unresolvedMinutes, steps };
}

function costOf(model: PathModel, repair: number, policy: Policy, cures: number): number {
	const wrong = model.repairs[repair]?.part ? (1 - cures) * policy.wrongPartMinutes : 0;
	return repairMinutes(model, repair, policy) + wrong;
}
