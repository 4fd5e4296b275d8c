import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFromText } from '../path/randomFromText';
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

describe('against direct simulation', () => {
	/** A count of events of this mean, by inversion. */
	function poisson(mean: number, random: () => number): number {
		let [count, chance] = [0, Math.exp(-mean)];
		let left = random();
		while (left > chance && count < 1000) {
			left -= chance;
			count += 1;
			chance *= mean / count;
		}
		return count;
	}

	it.each([
		[1, 10, 20],
		[3, 30, 45],
		[2, 5, 3],
		[6, 40, 15]
	])('%i returns in %i km, then %i km: as many stay silent as the formula says', (k, D, d) => {
		const random = randomFromText(`silent ${k} ${D} ${d}`);
		let [came, silent] = [0, 0];
		// Nobody knows the rate beforehand: every order of magnitude is as likely as another.
		for (let i = 0; i < 400_000; i++) {
			const rate = 10 ** (-3.5 + 5 * random());
			if (rate * D > 60 || poisson(rate * D, random) !== k) continue;
			came += 1;
			if (poisson(rate * d, random) === 0) silent += 1;
		}
		const wanted = silentChance(k, D, d);
		const spread = Math.sqrt((wanted * (1 - wanted)) / came);
		expect(came).toBeGreaterThan(5000);
		expect(Math.abs(silent / came - wanted)).toBeLessThan(4 * spread);
	});

	it('a mended fault is told from an unmended one as often as the target says', () => {
		// Drives on for as long as the formula asks; an unmended fault of whatever rate passes with the target's chance.
		const random = randomFromText('passes');
		const [k, D, target] = [2, 20, 0.1];
		const needed = exposureNeeded(k, D, target);
		let [came, passed] = [0, 0];
		for (let i = 0; i < 400_000; i++) {
			const rate = 10 ** (-3.5 + 5 * random());
			if (rate * D > 60 || poisson(rate * D, random) !== k) continue;
			came += 1;
			if (poisson(rate * needed, random) === 0) passed += 1;
		}
		expect(Math.abs(passed / came - target)).toBeLessThan(4 * Math.sqrt((target * (1 - target)) / came));
	});

	it('a drive counts once: eight counts of one bend, taken for returns, would let most unmended faults pass', () => {
		const random = randomFromText('clusters');
		const [drives, D, perDrive, target] = [2, 20, 8, 0.05];
		const passRate = (returns: number) => {
			const needed = exposureNeeded(returns, D, target);
			let [came, passed] = [0, 0];
			for (let i = 0; i < 400_000; i++) {
				const rate = 10 ** (-3.5 + 5 * random());
				if (rate * D > 60 || poisson(rate * D, random) !== drives) continue;
				came += 1;
				if (poisson(rate * needed, random) === 0) passed += 1;
			}
			return passed / came;
		};
		expect(passRate(drives)).toBeCloseTo(target, 1.5);
		expect(passRate(drives * perDrive)).toBeGreaterThan(0.5);
	});
});
