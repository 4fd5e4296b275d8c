import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { furtherSeconds, provokedChance, provokedWords, strongest, type Provoked } from './provoked';

const plug = (since: Partial<Provoked['since']> = {}): Provoked => ({
	words: 'plug X20 moved',
	before: { changes: 3, seconds: 10 },
	since: { changes: 0, seconds: 0, ...since }
});

describe('the same provocation after the repair', () => {
	it('asks for as long as makes silence telling: D · (p^(−1/k) − 1)', () => {
		// 10 s · (0.05^(−1/3) − 1) = 17.1 s
		expect(furtherSeconds([plug()], 0.05)).toBeCloseTo(17.14, 1);
		expect(furtherSeconds([plug({ seconds: 17.2 })], 0.05)).toBe(0);
		expect(provokedChance([plug({ seconds: 17.144 })])).toBeCloseTo(0.05, 3);
	});

	it('what was provoked nowhere is not asked for', () => {
		expect(furtherSeconds([], 0.05)).toBe(0);
		expect(provokedWords([], 0.05)).toBeNull();
	});

	it('what shows it soonest has to be done again, however long anything else was', () => {
		const lead: Provoked = {
			words: 'lead moved',
			before: { changes: 1, seconds: 20 },
			since: { changes: 0, seconds: 4000 }
		};
		expect(strongest([lead, plug()])?.words).toBe('plug X20 moved');
		expect(furtherSeconds([lead, plug()], 0.05)).toBeGreaterThan(0);
		expect(furtherSeconds([lead, plug()], 0.05)).toBeLessThan(furtherSeconds([plug()], 0.05));
	});

	it('says what it waits for, what it showed, and that it changed again', () => {
		expect(provokedWords([plug()], 0.05)).toBe(
			'Before the repair it changed 3 times in 10 s with plug X20 moved. Do the same again, for 18 s.'
		);
		expect(provokedWords([plug({ seconds: 20 })], 0.05)).toContain('20 s of the same since, and nothing.');
		expect(provokedWords([plug({ seconds: 3, changes: 2 })], 0.05)).toContain('changed 2 times again');
	});

	it('is proven at the target and not before, whatever was seen', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						words: fc.constant('x'),
						before: fc.record({
							changes: fc.integer({ min: 1, max: 20 }),
							seconds: fc.double({ min: 0, max: 300, noNaN: true })
						}),
						since: fc.record({
							changes: fc.constant(0),
							seconds: fc.double({ min: 0, max: 300, noNaN: true })
						})
					}),
					{ minLength: 1, maxLength: 4 }
				),
				fc.constantFrom(0.1, 0.05, 0.01),
				(list, target) => {
					const further = furtherSeconds(list, target);
					const first = strongest(list);
					const done = list.map((one) =>
						one === first ? { ...one, since: { changes: 0, seconds: one.since.seconds + further } } : one
					);
					if (first && further > 0) expect(provokedChance(done)).toBeLessThanOrEqual(target * (1 + 1e-9));
					if (further === 0) expect(provokedChance(list)).toBeLessThanOrEqual(target * (1 + 1e-9));
				}
			)
		);
	});
});
