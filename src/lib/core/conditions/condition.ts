import { z } from 'zod';

/**
 * What must be true before a code is set, or before its test completes: data, not code. A closed vocabulary of few
 * kinds; {@link ConditionWatch} is its one evaluator and `conditionSentence` its one way into words.
 */

/** A signal's name as recordings have it in their heads, without its unit: `vehicle`, `front_left`, `steering`. */
const Signal = z
	.string()
	.regex(/^[a-z][a-z0-9_]{0,39}$/, 'A signal is written in small letters, digits and _, such as front_left.');

const SignalOperand = z.object({ kind: z.literal('signal'), signal: Signal });
const Number_ = z.number().min(-1e9).max(1e9);

/** Something that has a number at each moment. */
export const Operand = z.discriminatedUnion('kind', [
	SignalOperand,
	z.object({ kind: z.literal('value'), value: Number_ }),
	/** The distance between two signals, whichever is larger. */
	z.object({ kind: z.literal('difference'), between: z.tuple([Signal, Signal]) }),
	/** A part of a signal: 50 % of the vehicle speed. */
	z.object({ kind: z.literal('share'), percent: z.number().min(0).max(1000), of: Signal })
]);
export type Operand = z.infer<typeof Operand>;

export const COMPARISONS = ['above', 'at-least', 'below', 'at-most', 'equal'] as const;
export type Comparison = (typeof COMPARISONS)[number];

const Compare = z.object({
	kind: z.literal('compare'),
	left: Operand,
	is: z.enum(COMPARISONS),
	right: Operand,
	/** How far the left side must come back before a comparison that was true stops being true, in its unit. */
	hysteresis: z.number().min(0).max(1e6).default(0)
});

const MOST_PARTS = 20;
const LONGEST_HOLD_S = 86_400;

const All = z.object({
	kind: z.literal('all'),
	get of(): z.ZodArray<typeof Condition> {
		return z.array(Condition).min(1).max(MOST_PARTS);
	}
});
const Any = z.object({
	kind: z.literal('any'),
	get of(): z.ZodArray<typeof Condition> {
		return z.array(Condition).min(1).max(MOST_PARTS);
	}
});
const Not = z.object({
	kind: z.literal('not'),
	get of(): typeof Condition {
		return Condition;
	}
});
/** The inner condition has been true without a break for this long. */
const Held = z.object({
	kind: z.literal('held'),
	forS: z.number().positive().max(LONGEST_HOLD_S),
	get of(): typeof Condition {
		return Condition;
	}
});

export const Condition = z.discriminatedUnion('kind', [Compare, All, Any, Not, Held]);
export type Condition =
	| z.infer<typeof Compare>
	| { kind: 'all'; of: Condition[] }
	| { kind: 'any'; of: Condition[] }
	| { kind: 'not'; of: Condition }
	| { kind: 'held'; of: Condition; forS: number };
export type CompareCondition = z.infer<typeof Compare>;

/** Deeper than anybody can read. */
export const MOST_DEPTH = 6;

export function conditionDepth(condition: Condition): number {
	switch (condition.kind) {
		case 'compare':
			return 1;
		case 'all':
		case 'any':
			return 1 + Math.max(...condition.of.map(conditionDepth));
		case 'not':
		case 'held':
			return 1 + conditionDepth(condition.of);
	}
}

/** Signals a condition needs, each once, in order of appearance. */
export function signalsOf(condition: Condition): string[] {
	const found: string[] = [];
	const operand = (o: Operand) => {
		if (o.kind === 'signal') found.push(o.signal);
		if (o.kind === 'share') found.push(o.of);
		if (o.kind === 'difference') found.push(...o.between);
	};
	const visit = (c: Condition): void => {
		if (c.kind === 'compare') {
			operand(c.left);
			operand(c.right);
		} else if (Array.isArray(c.of)) c.of.forEach(visit);
		else visit(c.of);
	};
	visit(condition);
	return [...new Set(found)];
}
