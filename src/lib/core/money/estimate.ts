/** What is asked for: work by its minutes, or a thing at its price. Money in smallest units, without tax. */
export type Asked = { minutes: number } | { amount: number };

/** How a shop asks: smallest units an hour, and tax in hundredths of a per cent of everything. */
export interface Terms {
	ratePerHour: number;
	taxBasisPoints: number;
}

export interface Sum {
	/** Of each line, in their order. */
	lines: number[];
	work: number;
	things: number;
	/** Without tax. */
	net: number;
	tax: number;
	total: number;
}

const MIN_PER_H = 60;
const BASIS_POINTS = 10_000;

/** The nearest whole number, a half away from zero, of a quotient of whole numbers that are not negative. */
function quotient(of: number, by: number): number {
	const whole = Math.floor(of / by);
	return whole + (2 * (of - whole * by) >= by ? 1 : 0);
}

/**
 * What an estimate comes to. Each line is rounded to a smallest unit, as it stands on the paper, and the tax is taken once of
 * what the lines come to: what is printed adds up.
 *
 * Exact while minutes × rate and net × tax stay below 2^53.
 */
export function sumOf(asked: readonly Asked[], { ratePerHour, taxBasisPoints }: Terms): Sum {
	const lines = asked.map((one) =>
		'minutes' in one ? quotient(one.minutes * ratePerHour, MIN_PER_H) : one.amount
	);
	const sumWhere = (isIn: (one: Asked) => boolean) =>
		asked.reduce((sum, one, nth) => (isIn(one) ? sum + (lines[nth] ?? 0) : sum), 0);
	const work = sumWhere((one) => 'minutes' in one);
	const things = sumWhere((one) => 'amount' in one);
	const net = work + things;
	const tax = quotient(net * taxBasisPoints, BASIS_POINTS);
	return { lines, work, things, net, tax, total: net + tax };
}
