/** What the time between two flashes' beginnings is: within a group, between groups, or between two showings of the code. */
export type Gap = 'flash' | 'group' | 'cycle';

/** One way of telling the gaps apart by length, with how well it fits. */
export interface Classes {
	/** By gap, in the order of the flashes. */
	gaps: Gap[];
	/** Natural logarithm of how likely such lengths are; comparable between the ways of one reading only. */
	log: number;
}

/** Relative scatter that a lamp and a hand may have; the likeliest of these is taken. */
const SCATTERS = [0.03, 0.08, 0.15, 0.25];
/** Neighbours in length closer than this are never told apart. */
const LEAST_STEP = Math.log(1.06);
const MOST_KEPT = 150;

/** Logarithm of a length's or a ratio's density: around a usual value, within a spread (both natural logarithms). */
const usual = (log: number, value: number, spread: number): number =>
	-(((log - Math.log(value)) / spread) ** 2) / 2 - Math.log(spread * Math.sqrt(2 * Math.PI));

/** Usual lengths in seconds and ratios of lamp codes of our trade: wide, so that any speed of lamp is read. */
const FLASH_S = [0.6, 0.8] as const;
const GROUP_S = [1.8, 0.8] as const;
const GROUP_TO_FLASH = [3, 0.45] as const;
const CYCLE_TO_GROUP = [2.2, 0.45] as const;
const CYCLE_TO_FLASH = [7, 0.45] as const;
/** Where it is known for how long the lamp is lit: a flash and its pause against that. */
const FLASH_TO_LIT = [2, 0.35] as const;

/**
 * The ways of cutting gaps by length into up to three kinds, the likeliest first. Lengths of one kind scatter around their
 * mean by a share of it (normal in the logarithm); the means are held against what lamp codes usually are.
 *
 * @param gapsS seconds from each flash's beginning to the next one's, above zero
 * @param litS for how long the lamp is lit at a flash, where known
 */
export function gapClasses(gapsS: readonly number[], litS: number | null = null): Classes[] {
	const order = [...gapsS.keys()].sort((a, b) => (gapsS[a] ?? 0) - (gapsS[b] ?? 0));
	const logs = order.map((i) => Math.log(gapsS[i] ?? 1));
	const n = logs.length;
	const [sum, squares] = [new Float64Array(n + 1), new Float64Array(n + 1)];
	for (const [i, log] of logs.entries()) {
		sum[i + 1] = (sum[i] ?? 0) + log;
		squares[i + 1] = (squares[i] ?? 0) + log * log;
	}
	const part = (from: number, to: number) => {
		const [count, s] = [to - from, (sum[to] ?? 0) - (sum[from] ?? 0)];
		if (count === 0) return null;
		const mean = s / count;
		return { mean, count, around: Math.max(0, (squares[to] ?? 0) - (squares[from] ?? 0) - s * mean) };
	};
	const cuts = [0, n];
	for (let i = 1; i < n; i++) if ((logs[i] ?? 0) - (logs[i - 1] ?? 0) > LEAST_STEP) cuts.push(i);
	const found: { first: number; second: number; log: number }[] = [];
	for (const first of cuts) {
		for (const second of cuts) {
			if (second < first) continue;
			const log = fit(part(0, first), part(first, second), part(second, n), litS);
			if (Number.isFinite(log)) found.push({ first, second, log });
		}
	}
	found.sort((a, b) => b.log - a.log);
	return found.slice(0, MOST_KEPT).map(({ first, second, log }) => {
		const gaps: Gap[] = gapsS.map(() => 'flash');
		for (const [rank, i] of order.entries())
			gaps[i] = rank < first ? 'flash' : rank < second ? 'group' : 'cycle';
		return { gaps, log };
	});
}

type Part = { mean: number; count: number; around: number } | null;

/** Marginal likelihood by Laplace: every mean is free within its usual spread, the scatter is one of a few. */
function fit(flash: Part, group: Part, cycle: Part, litS: number | null): number {
	const parts = [flash, group, cycle].flatMap((one) => one ?? []);
	const ofScatter = SCATTERS.map((s) =>
		parts.reduce(
			(log, { count, around }) =>
				log - around / (2 * s * s) - (count - 1) * Math.log(s * Math.sqrt(2 * Math.PI)) - Math.log(count) / 2,
			0
		)
	);
	const most = Math.max(...ofScatter);
	const together = ofScatter.reduce((sum, log) => sum + Math.exp(log - most), 0) / SCATTERS.length;
	return most + Math.log(together) + means(flash, group, cycle, litS);
}

/** How usual the mean lengths are: the shortest by its seconds, each next one by its ratio to the one before. */
function means(flash: Part, group: Part, cycle: Part, litS: number | null): number {
	let log = 0;
	if (flash) log += usual(flash.mean, ...FLASH_S);
	if (flash && litS) log += usual(flash.mean - Math.log(litS), ...FLASH_TO_LIT);
	if (group) {
		log += flash ? usual(group.mean - flash.mean, ...GROUP_TO_FLASH) : usual(group.mean, ...GROUP_S);
		if (!flash && litS)
			log += usual(group.mean - Math.log(litS), FLASH_TO_LIT[0] * GROUP_TO_FLASH[0], FLASH_TO_LIT[1] * 2);
	}
	if (cycle) {
		if (group) log += usual(cycle.mean - group.mean, ...CYCLE_TO_GROUP);
		else if (flash) log += usual(cycle.mean - flash.mean, ...CYCLE_TO_FLASH);
		else log += usual(cycle.mean, GROUP_S[0] * CYCLE_TO_GROUP[0], GROUP_S[1]);
	}
	return log;
}
