import type { Comparison, CompareCondition, Condition, Operand } from './condition';

/** What a signal is called and in what it is measured. */
export interface SignalWords {
	name: string;
	/** Empty for a switch. */
	unit: string;
	/** On or off instead of a number. */
	isSwitch: boolean;
}

export type WordsOf = (signal: string) => SignalWords;

const COMPARISON_WORDS: Record<Comparison, string> = {
	above: 'above',
	'at-least': 'at least',
	below: 'below',
	'at-most': 'at most',
	equal: 'at'
};

/**
 * A condition as a technician would say it: "vehicle speed above 20 km/h and rear left below 50 % of vehicle speed, for
 * 2 s without a break". Parts that would be ambiguous stand in brackets.
 */
export function conditionSentence(condition: Condition, words: WordsOf): string {
	return say(condition, words, false);
}

function say(condition: Condition, words: WordsOf, inside: boolean): string {
	const bracket = (text: string) => (inside ? `(${text})` : text);
	switch (condition.kind) {
		case 'compare':
			return sayCompare(condition, words);
		case 'all':
		case 'any': {
			const joined = condition.of
				.map((part) => say(part, words, condition.of.length > 1))
				.join(condition.kind === 'all' ? ' and ' : ' or ');
			return condition.of.length > 1 ? bracket(joined) : joined;
		}
		case 'not':
			return `not ${say(condition.of, words, condition.of.kind !== 'not')}`;
		case 'held':
			return bracket(`${say(condition.of, words, false)}, for ${number(condition.forS)} s without a break`);
	}
}

function sayCompare({ left, is, right, hysteresis }: CompareCondition, words: WordsOf): string {
	const only = left.kind === 'signal' ? words(left.signal) : null;
	if (only?.isSwitch && is === 'equal' && right.kind === 'value' && (right.value === 0 || right.value === 1))
		return `${only.name} ${right.value === 1 ? 'on' : 'off'}`;
	const unit = unitOf(left, words) || unitOf(right, words);
	const ends =
		hysteresis > 0
			? ` (ends only ${number(hysteresis)}${unit ? ` ${unit}` : ''} ${is === 'above' || is === 'at-least' ? 'below' : 'beyond'} that)`
			: '';
	return `${sayOperand(left, words, unit)} ${COMPARISON_WORDS[is]} ${sayOperand(right, words, unit)}${ends}`;
}

function sayOperand(operand: Operand, words: WordsOf, unit: string): string {
	switch (operand.kind) {
		case 'value':
			return `${number(operand.value)}${unit ? ` ${unit}` : ''}`;
		case 'signal':
			return words(operand.signal).name;
		case 'share':
			return `${number(operand.percent)} % of ${words(operand.of).name}`;
		case 'difference':
			return `the difference between ${operand.between.map((signal) => words(signal).name).join(' and ')}`;
	}
}

function unitOf(operand: Operand, words: WordsOf): string {
	if (operand.kind === 'signal') return words(operand.signal).unit;
	if (operand.kind === 'share') return words(operand.of).unit;
	return operand.kind === 'difference' ? words(operand.between[0]).unit : '';
}

/** Up to three places, no needless zeros. */
const number = (value: number): string => String(Math.round(value * 1000) / 1000);
