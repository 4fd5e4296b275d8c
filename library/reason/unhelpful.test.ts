import { describe, expect, it } from 'vitest';
import type { Observation } from '../../src/lib/core/path/model';
import { vehicleTypes } from '../vehicles';
import { reasonModel } from './model';
import { repairsWithoutHelp, shareAfter } from './unhelpful';

const type = vehicleTypes.get('brindle-marlow-16');
if (!type) throw new Error('no minibus');
const model = reasonModel(type);
const repair = (id: string) => {
	const index = model.repairs.findIndex((one) => one.id === id);
	if (index < 0) throw new Error(id);
	return new Set([index]);
};
const seen = (epoch: number, sign: string, outcome: string): Observation => ({
	sign,
	outcome,
	entry: '',
	epoch
});
const count = (done: string[], ...observations: Observation[]) =>
	repairsWithoutHelp(model, observations, done.map(repair));

describe('a repair that did not help', () => {
	it('is one after which what its faults show is there again', () => {
		const before = seen(0, 'wheel-code@rear-left', 'open');
		expect(count(['renew-lead@rear-left'], before, seen(1, 'wheel-code@rear-left', 'open'))).toBe(1);
		expect(count(['renew-lead@rear-left'], before, seen(1, 'wheel-code@rear-left', 'none'))).toBe(0);
		expect(count(['renew-lead@rear-left'], before)).toBe(0);
	});

	it('is not one after which another fault still shows elsewhere', () => {
		const both = [seen(0, 'wheel-code@rear-left', 'open'), seen(0, 'wheel-code@front-right', 'open')];
		const left = [seen(1, 'wheel-code@rear-left', 'none'), seen(1, 'wheel-code@front-right', 'open')];
		expect(count(['renew-lead@rear-left'], ...both, ...left)).toBe(0);
		expect(
			count(
				['renew-lead@rear-left', 'renew-sensor@front-right'],
				...both,
				...left,
				seen(2, 'wheel-code@front-right', 'open')
			)
		).toBe(1);
	});

	it('at a module is one after which the others still miss it, at another place it says nothing of it', () => {
		const before = seen(0, 'accused@cluster', 'missing-many');
		const still = seen(1, 'accused@cluster', 'missing-many');
		expect(count(['clean-module-plug@cluster'], before, still)).toBe(1);
		expect(count(['clean-module-plug@yaw'], before, still)).toBe(0);
	});

	it('makes it likelier each time that what is wrong is not described', () => {
		const shares = [0, 1, 2, 3].map((times) => shareAfter(0.08, times));
		expect(shares[0]).toBeCloseTo(0.08);
		expect(shares).toEqual([...shares].sort((a, b) => a - b));
		expect(shares.at(-1)).toBeLessThan(1);
	});
});
