import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumOf } from './estimate';
import { digitsOf, moneyRead, moneyTyped, moneyWords } from './money';

describe('an amount', () => {
	it('is counted in the digits of its currency', () => {
		expect(['EUR', 'JPY', 'KWD'].map(digitsOf)).toEqual([2, 0, 3]);
		expect(moneyWords(123450, 'EUR')).toBe('€1,234.50');
		expect(moneyWords(1234, 'JPY')).toBe('JP¥1,234');
	});

	it.each([
		['85', 8500],
		['85.5', 8550],
		['85,50', 8550],
		['1,234.50', 123450],
		['1.234,50', 123450],
		['1 234', 123400],
		['1.234', 123400],
		['12,-', 1200],
		['0', 0]
	])('is read as it is typed: %s', (typed, units) => expect(moneyRead(typed, 'EUR')).toBe(units));

	it.each(['', 'a lot', '-5', '1.2345', '1,23,456', '1.2.3', '99999999999999', '12 34'])(
		'is refused where it is none: “%s”',
		(typed) => expect(moneyRead(typed, 'EUR')).toBeNull()
	);

	it('has no smaller part than its currency', () => {
		expect(moneyRead('12.5', 'JPY')).toBeNull();
		expect(moneyRead('12', 'JPY')).toBe(12);
	});

	it('is read back as it is put into a field', () =>
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 9_999_999 }),
				fc.constantFrom('EUR', 'JPY', 'KWD'),
				(units, currency) => {
					expect(moneyRead(moneyTyped(units, currency), currency)).toBe(units);
				}
			)
		));
});

describe('what an estimate comes to', () => {
	it('is what stands on its lines, and the tax of that', () => {
		const sum = sumOf([{ minutes: 35 }, { amount: 6490 }], { ratePerHour: 8900, taxBasisPoints: 2100 });
		// 35/60 × 89.00 = 51.9166…, 21 % of 116.82 = 24.5322
		expect(sum).toEqual({
			lines: [5192, 6490],
			work: 5192,
			things: 6490,
			net: 11682,
			tax: 2453,
			total: 14135
		});
	});

	it('rounds a half up, and nothing where nothing is asked', () => {
		expect(sumOf([{ minutes: 1 }], { ratePerHour: 30, taxBasisPoints: 0 }).total).toBe(1);
		expect(sumOf([], { ratePerHour: 8900, taxBasisPoints: 2100 }).total).toBe(0);
	});

	it('agrees with sums of big whole numbers, and adds up as it is printed', () =>
		fc.assert(
			fc.property(
				fc.array(
					fc.oneof(
						fc.integer({ min: 0, max: 6000 }).map((minutes) => ({ minutes })),
						fc.integer({ min: 0, max: 10_000_000 }).map((amount) => ({ amount }))
					),
					{ maxLength: 40 }
				),
				fc.integer({ min: 0, max: 100_000 }),
				fc.integer({ min: 0, max: 3000 }),
				(asked, ratePerHour, taxBasisPoints) => {
					const sum = sumOf(asked, { ratePerHour, taxBasisPoints });
					const nearest = (of: bigint, by: bigint) => (2n * of + by) / (2n * by);
					const net = asked.reduce(
						(all, one) =>
							all +
							('minutes' in one
								? nearest(BigInt(one.minutes) * BigInt(ratePerHour), 60n)
								: BigInt(one.amount)),
						0n
					);
					expect(BigInt(sum.net)).toBe(net);
					expect(BigInt(sum.total)).toBe(net + nearest(net * BigInt(taxBasisPoints), 10_000n));
					expect(sum.lines.reduce((a, b) => a + b, 0)).toBe(sum.work + sum.things);
				}
			)
		));
});
