import type { CompareCondition, Condition, Operand } from './condition';

/** Value of a signal in this sample, null where the sample has none. */
export type SignalLookup = (signal: string) => number | null;

/** Whether a condition holds: unknown where a signal that decides it is missing. */
export type Truth = 'met' | 'not-met' | 'unknown';

type Step = (timeS: number, lookup: SignalLookup, unbroken: boolean) => Truth;

/** Between samples further apart than this nobody knows what happened. */
const DEFAULT_MAX_GAP_S = 1;

/**
 * Follows one condition through samples in order of time.
 *
 * Three-valued: a missing signal makes unknown what depends on it, and no more. "Held for" starts over when its inner
 * condition stops, becomes unknown, or when two samples are more than `maxGapS` apart. Hysteresis starts in the state "not
 * true".
 */
export class ConditionWatch {
	private readonly step: Step;
	private lastS: number | null = null;

	constructor(
		condition: Condition,
		private readonly maxGapS = DEFAULT_MAX_GAP_S
	) {
		this.step = compile(condition);
	}

	/** @param timeS seconds, not before those of the sample before */
	sample(timeS: number, lookup: SignalLookup): Truth {
		const unbroken = this.lastS !== null && timeS - this.lastS <= this.maxGapS && timeS >= this.lastS;
		this.lastS = timeS;
		return this.step(timeS, lookup, unbroken);
	}
}

export interface ConditionReport {
	/** When it was met: from the sample that first showed it to the last that did. */
	intervals: { startS: number; endS: number }[];
	/** Sum of the intervals, seconds. */
	metS: number;
	/** Whether some samples could not tell. */
	unknown: boolean;
}

/** A whole recording at once. Samples in order of time; a lone sample counts as an interval of no length. */
export function evaluateCondition(
	condition: Condition,
	samples: Iterable<{ timeS: number; values: Readonly<Record<string, number | null>> }>,
	maxGapS = DEFAULT_MAX_GAP_S
): ConditionReport {
	const watch = new ConditionWatch(condition, maxGapS);
	const intervals: ConditionReport['intervals'] = [];
	let open: { startS: number; endS: number } | null = null;
	let unknown = false;
	for (const { timeS, values } of samples) {
		const truth = watch.sample(timeS, (signal) => values[signal] ?? null);
		if (truth === 'unknown') unknown = true;
		if (truth === 'met' && open && timeS - open.endS <= maxGapS) open.endS = timeS;
		else if (truth === 'met') intervals.push((open = { startS: timeS, endS: timeS }));
		else open = null;
	}
	return { intervals, metS: intervals.reduce((sum, i) => sum + i.endS - i.startS, 0), unknown };
}

const truth = (value: boolean): Truth => (value ? 'met' : 'not-met');

function compile(condition: Condition): Step {
	switch (condition.kind) {
		case 'compare':
			return compileCompare(condition);
		case 'all':
			return compileMany(condition.of, 'not-met', 'met');
		case 'any':
			return compileMany(condition.of, 'met', 'not-met');
		case 'not': {
			const inner = compile(condition.of);
			return (timeS, lookup, unbroken) => {
				const is = inner(timeS, lookup, unbroken);
				return is === 'unknown' ? is : truth(is === 'not-met');
			};
		}
		case 'held': {
			const inner = compile(condition.of);
			let sinceS: number | null = null;
			return (timeS, lookup, unbroken) => {
				const is = inner(timeS, lookup, unbroken);
				if (is !== 'met') {
					sinceS = null;
					return is;
				}
				if (sinceS === null || !unbroken) sinceS = timeS;
				return truth(timeS - sinceS >= condition.forS - 1e-9);
			};
		}
	}
}

/** `decides`: one part with this truth settles the whole. Every part is stepped, since each has a memory of its own. */
function compileMany(parts: Condition[], decides: Truth, otherwise: Truth): Step {
	const steps = parts.map(compile);
	return (timeS, lookup, unbroken) => {
		const all = steps.map((step) => step(timeS, lookup, unbroken));
		if (all.includes(decides)) return decides;
		return all.includes('unknown') ? 'unknown' : otherwise;
	};
}

function compileCompare({ left, is, right, hysteresis }: CompareCondition): Step {
	let was = false;
	return (_, lookup) => {
		const l = valueOf(left, lookup);
		const r = valueOf(right, lookup);
		if (l === null || r === null) {
			was = false;
			return 'unknown';
		}
		const slack = was ? hysteresis : 0;
		was =
			is === 'above'
				? l > r - slack
				: is === 'at-least'
					? l >= r - slack
					: is === 'below'
						? l < r + slack
						: is === 'at-most'
							? l <= r + slack
							: Math.abs(l - r) <= Math.max(slack, 1e-9);
		return truth(was);
	};
}

function valueOf(operand: Operand, lookup: SignalLookup): number | null {
	switch (operand.kind) {
		case 'value':
			return operand.value;
		case 'signal':
			return finite(lookup(operand.signal));
		case 'share': {
			const value = finite(lookup(operand.of));
			return value === null ? null : (value * operand.percent) / 100;
		}
		case 'difference': {
			const [a, b] = operand.between.map((signal) => finite(lookup(signal)));
			return a === null || b === null || a === undefined || b === undefined ? null : Math.abs(a - b);
		}
	}
}

const finite = (value: number | null): number | null =>
	value !== null && Number.isFinite(value) ? value : null;
