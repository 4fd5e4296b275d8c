import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isLikeKm, isLikeSeason, kmLikeness, likeness, seasonLikeness, type CaseTraits } from './likeCase';

const traits = fc.record({
	typeId: fc.constantFrom('a', 'b'),
	groups: fc.subarray(['circuit', 'supply', 'network']),
	km: fc.option(fc.integer({ min: 1, max: 900_000 })),
	month: fc.integer({ min: 0, max: 11 })
});
const CASE: CaseTraits = { typeId: 'a', groups: ['circuit'], km: 120_000, month: 0 };

describe('how much one outcome says about another case', () => {
	it('is the same both ways, above nothing and at most one', () => {
		fc.assert(
			fc.property(traits, traits, (one, other) => {
				expect(likeness(one, other)).toBeCloseTo(likeness(other, one), 12);
				expect(likeness(one, other)).toBeGreaterThan(0);
				expect(likeness(one, other)).toBeLessThanOrEqual(1);
			})
		);
	});

	it('is whole for a case that is the same, and weaker with each trait that is not', () => {
		expect(likeness(CASE, CASE)).toBe(1);
		for (const other of [{ typeId: 'b' }, { groups: [] }, { km: 20_000 }, { month: 6 }, { km: null }])
			expect(likeness(CASE, { ...CASE, ...other })).toBeLessThan(1);
	});

	it('goes by the ratio of odometers, not by their difference', () => {
		expect(kmLikeness(20_000, 40_000)).toBeCloseTo(kmLikeness(400_000, 200_000), 12);
		expect(kmLikeness(20_000, 40_000)).toBeCloseTo(0.5 + 0.5 * Math.exp(-0.5), 12);
		expect(isLikeKm(100_000, 140_000)).toBe(true);
		expect(isLikeKm(100_000, 20_000)).toBe(false);
		expect(isLikeKm(null, 20_000)).toBe(false);
	});

	it('goes round the turn of the year', () => {
		expect(seasonLikeness(11, 0)).toBeCloseTo(seasonLikeness(0, 1), 12);
		expect(seasonLikeness(0, 6)).toBeCloseTo(0.6, 12);
		expect(isLikeSeason(11, 1)).toBe(true);
		expect(isLikeSeason(11, 2)).toBe(false);
	});
});
