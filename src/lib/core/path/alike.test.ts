import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mostAlike, TRAIT_WEIGHTS, type Trait, type TraitKind } from './alike';

const failure = (value: string): Trait => ({ kind: 'failure', value });
const symptom = (value: string): Trait => ({ kind: 'symptom', value });
const type = (value: string): Trait => ({ kind: 'type', value });
const anyTrait = fc.record({
	kind: fc.constantFrom(...(Object.keys(TRAIT_WEIGHTS) as TraitKind[])),
	value: fc.constantFrom('a', 'b', 'c', 'd')
});
const anyCase = fc.array(anyTrait, { maxLength: 8 });

describe('cases like one', () => {
	it('come in the order of how much of it they share, with what that is', () => {
		const here = [failure('C0045-13'), symptom('pulls'), type('van')];
		const ranked = mostAlike(here, [
			{ one: 'a van', traits: [type('van')] },
			{ one: 'the very code', traits: [failure('C0045-13'), type('bus')] },
			{ one: 'code and van', traits: [failure('C0045-13'), type('van')] },
			{ one: 'nothing', traits: [failure('C0035-11')] }
		]);
		expect(ranked.map(({ one }) => one)).toEqual(['code and van', 'the very code', 'a van']);
		expect(ranked[0]?.same).toEqual([failure('C0045-13'), type('van')]);
	});

	it('what all have tells nothing apart: a rare symptom outweighs a common type', () => {
		const here = [symptom('hums'), type('van')];
		const vans = Array.from({ length: 50 }, (_, nth) => ({ one: `van ${nth}`, traits: [type('van')] }));
		const [first] = mostAlike(here, [...vans, { one: 'it hums', traits: [symptom('hums')] }]);
		expect(first?.one).toBe('it hums');
	});

	it('is 1 for the same again, between 0 and 1 for all others, whatever is known', () =>
		fc.assert(
			fc.property(anyCase, fc.array(anyCase, { maxLength: 6 }), (here, others) => {
				const ranked = mostAlike(
					here,
					[here, ...others].map((traits, one) => ({ one, traits }))
				);
				for (const { share, same } of ranked) {
					expect(share).toBeGreaterThan(0);
					expect(share).toBeLessThanOrEqual(1 + 1e-12);
					expect(same.length).toBeGreaterThan(0);
				}
				if (here.length > 0) expect(ranked[0]?.share).toBeCloseTo(1, 12);
				expect(ranked.map(({ share }) => share)).toEqual(
					ranked.map(({ share }) => share).sort((a, b) => b - a)
				);
			})
		));

	it('sharing more never ranks lower', () =>
		fc.assert(
			fc.property(anyCase, anyCase, fc.nat(), (here, less, pick) => {
				const more = [...less, ...here.slice(0, pick % (here.length + 1))];
				const ranked = mostAlike(here, [
					{ one: 'less', traits: less },
					{ one: 'more', traits: more }
				]);
				const share = (name: string) => ranked.find(({ one }) => one === name)?.share ?? 0;
				expect(share('more')).toBeGreaterThanOrEqual(share('less') - 1e-12);
			})
		));
});
