import { moneyWords } from '../../core/money/money';
import { sumOfEstimate } from '../entries/estimate/payload';
import type { Agreement } from '../progress/agreed';
import { upperFirst } from '../words';

/** What is asked for the work, as papers have it. */
export interface CostShown {
	lines: { what: string; amount: string }[];
	/** Between the lines and the total. */
	sums: { what: string; amount: string }[];
	total: string;
	/** What the customer said to it. */
	said: string;
}

const PERCENT = 100;

/** Null where nobody has asked for anything. */
export function costShown({ state, estimate, answer, upTo }: Agreement): CostShown | null {
	if (!estimate) return null;
	const money = (amount: number) => moneyWords(amount, estimate.currency);
	const sum = sumOfEstimate(estimate);
	const said = answer
		? `${upperFirst(answer.who)}, ${answer.how}: ${
				!answer.agrees
					? 'no'
					: answer.upTo === null
						? 'yes, to all of it'
						: `yes, up to ${money(answer.upTo)}`
			}.`
		: upTo === null
			? 'Nobody has agreed to it yet.'
			: '';
	const more = state === 'more' && upTo !== null ? `It is more than was agreed to (${money(upTo)}).` : '';
	return {
		lines: estimate.lines.map((line, nth) => ({
			what: 'minutes' in line ? `${line.what} (${line.minutes} min)` : line.what,
			amount: money(sum.lines[nth] ?? 0)
		})),
		sums: [
			{ what: 'Without tax', amount: money(sum.net) },
			{ what: `Tax, ${estimate.taxBasisPoints / PERCENT} %`, amount: money(sum.tax) }
		],
		total: money(sum.total),
		said: [said, more, estimate.note].filter(Boolean).join(' ')
	};
}
