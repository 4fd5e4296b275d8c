import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exposureNeeded, silentChance } from './silentChance';

const returns = fc.integer({ min: 1, max: 40 });
const km = fc.double({ min: 0.1, max: 5000, noNaN: true });

describe('an intermittent fault that has not come back', () => {
	it('which came three times in 30 km and not in 45 km since: 6.4 % that it is only silent', () => {
		expect(silentChance(3, 30, 45)).toBeCloseTo(0.064, 9);
		expect(exposureNeeded(3, 30, 0.064)).toBeCloseTo(45, 9);
	});

	it('nothing driven proves nothing', () => {
		fc.assert(
			fc.property(returns, km, (k, before) => {
				expect(silentChance(k, before, 0)).toBe(1);
			})
		);
	});

	it('after the exposure that is needed the chance is the target', () => {
		fc.assert(
			fc.property(returns, km, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (k, before, target) => {
				expect(silentChance(k, before, exposureNeeded(k, before, target))).toBeCloseTo(target, 9);
			})
		);
	});

	it('is the mean of exp(−rate · d) over a Gamma(k, D) belief, by numbers', () => {
		const [k, D, d] = [4, 20, 15];
		let [sum, weight] = [0, 0];
		for (let rate = 0.0005; rate < 4; rate += 0.001) {
			const density = rate ** (k - 1) * Math.exp(-rate * D);
			sum += density * Math.exp(-rate * d);
			weight += density;
		}
		expect(silentChance(k, D, d)).toBeCloseTo(sum / weight, 4);
	});

	it('refuses what cannot be', () => {
		expect(() => silentChance(0, 10, 5)).toThrow(/once or more/);
		expect(() => silentChance(2, 0, 5)).toThrow(/above 0/);
		expect(() => silentChance(2, 10, -1)).toThrow(/0 or more/);
		expect(() => exposureNeeded(2, 10, 1)).toThrow(/between 0 and 1/);
		expect(() => exposureNeeded(2, Infinity, 0.1)).toThrow(RangeError);
	});
});
