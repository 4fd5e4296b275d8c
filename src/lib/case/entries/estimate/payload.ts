import { z } from 'zod';
import { sumOf, type Asked, type Sum } from '../../../core/money/estimate';
import { Id, Text, Words } from '../fields';

export const MOST_LINES = 60;
const MOST_MINUTES = 60 * 1000;
export const MOST_MONEY = 1_000_000_000;
/** Up to here sums and their tax are exact. */
const MOST_NET = 100_000_000_000;
/** With whatever tax. */
export const MOST_TOTAL = 2 * MOST_NET;
const Amount = z.int().min(0).max(MOST_MONEY);
const What = Words.max(200);

const currencies: ReadonlySet<string> = new Set(Intl.supportedValuesOf('currency'));
export const Currency = z
	.string()
	.max(3)
	.refine((code) => currencies.has(code), 'It is to be a currency by its three letters, as EUR.');

/** The repair that a line belongs to; absent = none of the library. */
const repair = z.object({ kind: Id, place: Id }).optional();

/** How a shop asks, without tax; money in smallest units of its currency. */
export const Terms = z.object({
	currency: Currency,
	/** Of an hour of work. */
	ratePerHour: Amount,
	/** Tax, in hundredths of a per cent. */
	taxBasisPoints: z.int().min(0).max(10_000)
});
export type Terms = z.output<typeof Terms>;

/** What the work is to cost, as the customer is told. What it comes to follows from it ({@link sumOfEstimate}). */
export const Estimate = Terms.extend({
	lines: z
		.array(
			z.union([
				z.object({ what: What, minutes: z.number().min(0).max(MOST_MINUTES), repair }),
				/** A thing, at its price without tax. */
				z.object({ what: What, amount: Amount, repair })
			])
		)
		.min(1, 'An estimate has a line at least.')
		.max(MOST_LINES),
	note: Text
}).refine((one) => sumOfEstimate(one).net <= MOST_NET, {
	path: ['lines'],
	message: 'That is more than any work costs: look at the minutes and the prices.'
});
export type Estimate = z.output<typeof Estimate>;

/** What an estimate comes to, line by line. */
export function sumOfEstimate({ lines, ...terms }: Terms & { lines: readonly Asked[] }): Sum {
	return sumOf(lines, terms);
}
