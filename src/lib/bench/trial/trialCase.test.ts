import { describe, expect, it } from 'vitest';
import { faults } from '../../../../library/faults';
import { placesFor } from '../../../../library/faultPlaces';
import { systemOf, SYSTEMS } from '../../../../library/systems';
import { typeOf, MINIBUS } from '../bench.fixture';
import { casesFrom } from './trial';
import { isUnknown, scattered, USUAL_DRAW, type Draw, type TrialCase } from './trialCase';

const minibus = typeOf(MINIBUS);

function drawn(count: number, draw: Partial<Draw>, seed = 31): TrialCase[] {
	const cases = casesFrom(seed, minibus, { ...USUAL_DRAW, ...draw });
	return Array.from({ length: count }, () => cases.next().value as TrialCase);
}

describe('what vehicles are drawn', () => {
	it('has every fault at every place equally often where that is asked for', () => {
		const cases = drawn(4000, { by: 'uniform', doubles: 0 });
		const possible = [...faults.values()].reduce((sum, fault) => sum + placesFor(fault, minibus).length, 0);
		const counts = new Map<string, number>();
		for (const { faults: list } of cases)
			for (const { id, at } of list) counts.set(`${id}@${at}`, (counts.get(`${id}@${at}`) ?? 0) + 1);
		expect(counts.size).toBeGreaterThan(possible * 0.95);
		// A Poisson count of so many is never so far from its mean.
		const mean = cases.length / possible;
		expect(Math.max(...counts.values())).toBeLessThan(mean + 6 * Math.sqrt(mean));
	});

	it('has two faults as often as is asked for, and never the same twice', () => {
		expect(drawn(200, { doubles: 0 }).every(({ faults: list }) => list.length === 1)).toBe(true);
		for (const { faults: list } of drawn(200, { doubles: 1 }))
			expect(new Set(list.map(({ id, at }) => `${id}@${at}`)).size).toBe(2);
	});

	it('has something that is not described as often as is asked for', () => {
		expect(drawn(200, {}).some(isUnknown)).toBe(false);
		expect(drawn(200, { unknown: 1 }).every(isUnknown)).toBe(true);
		const share = drawn(1000, { unknown: 0.1 }).filter(isUnknown).length / 1000;
		expect(Math.abs(share - 0.1)).toBeLessThan(0.04);
	});

	it.each(SYSTEMS)('has faults of %s alone where that is asked for', (system) => {
		for (const { faults: list } of drawn(60, { system })) {
			expect(list.length).toBeGreaterThan(0);
			for (const { id } of list) expect(systemOf(faults.get(id) as never)).toBe(system);
		}
	});

	it('gives the same vehicles with other tolerances, the same for the same seed', () => {
		const [one] = drawn(1, {});
		if (!one) throw new Error('nothing drawn');
		expect(scattered(one, 0)).toBe(one);
		expect(scattered(one, 0.3)).toEqual(scattered(one, 0.3));
		expect({ ...scattered(one, 0.3), scatter: undefined }).toEqual({ ...one, scatter: undefined });
	});
});
