import type { Belief } from './believe';
import { outcomeIndex, type Observation, type PathModel } from './model';

/** Two readings that no fault explains together. */
export interface Contradiction {
	/** Says that something is good. */
	good: number;
	/** Says that something is wrong. */
	bad: number;
	/** How well the best fault explains both: 1 = as well as each alone. */
	best: number;
}

/** No fault explains both better than this. */
const HARDLY = 0.2;
/** And under the likeliest state one of them is this unlikely. */
const UNLIKELY = 0.15;

/**
 * Pairs of readings of which one says good and one bad, and no single described fault (nor nothing) makes both likely. A second fault
 * cannot help: it only makes the good reading less likely.
 */
export function contradictions(
	model: PathModel,
	observations: readonly Observation[],
	belief: Belief
): Contradiction[] {
	const shares = observations.map(({ sign, outcome }) => {
		const table = model.sign(sign);
		if (!table) return null;
		const at = outcomeIndex(table, outcome);
		const width = table.outcomes.length;
		const list = new Float64Array(model.rows.length + 1);
		list[model.rows.length] = table.sound[at] ?? 0;
		// What is not described could be thought to make anything.
		for (const [row, { fault }] of model.rows.entries())
			if (!model.background?.has(fault)) list[row] = table.chance[row * width + at] ?? 0;
		const most = list.reduce((a, b) => Math.max(a, b), 0);
		return { good: at === table.good, list: list.map((p) => p / most) };
	});
	const found: Contradiction[] = [];
	for (const [good, one] of shares.entries()) {
		if (!one?.good) continue;
		for (const [bad, other] of shares.entries()) {
			if (!other || other.good || observations[good]?.epoch !== observations[bad]?.epoch) continue;
			if (observations[good]?.entry === observations[bad]?.entry) continue;
			if (Math.min(belief.fit[good] ?? 1, belief.fit[bad] ?? 1) > UNLIKELY) continue;
			let best = 0;
			for (const [row, p] of one.list.entries()) best = Math.max(best, Math.min(p, other.list[row] ?? 0));
			if (best < HARDLY) found.push({ good, bad, best });
		}
	}
	return found.sort((a, b) => a.best - b.best);
}
