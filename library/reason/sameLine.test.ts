import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../vehicles';
import { reasonModel } from './model';
import { givenSameLine } from './sameLine';
import { signKey, splitKey, type SignKey } from './signs';
import { afterSameLine, testsFor } from './tests';

const type = vehicleTypes.get('ottaro-pip');
if (!type) throw new Error('no pip');
const model = reasonModel(type);
const [HIGH, OHMS] = ['meter:bus-high', 'meter:bus-ohms'];
/** Keys of readings one after another, as they are believed. */
const read = (...list: [key: SignKey, outcome: string][]) => {
	const seen = new Map<string, string>();
	return list.map(([key, outcome]) => {
		const sign = givenSameLine(key, (one) => seen.get(one), type);
		seen.set(key, outcome);
		return { sign, outcome, entry: '', epoch: 0 };
	});
};
/** Chance that a sign comes out good under a fault. */
const goodUnder = (fault: string, key: string): number => {
	const at = model.faults.findIndex(({ id }) => id === fault);
	const table = model.sign(key);
	if (!table || at < 0) throw new Error(`${fault} ${key}`);
	return table.chance[(model.rows.length + at) * table.outcomes.length + table.good] ?? 0;
};

describe('a bus line', () => {
	it('that was read at one module is the same line at another of its segment, and no other', () => {
		const [first, second, other] = read(
			[signKey(HIGH, 'gateway'), 'in'],
			[signKey(HIGH, 'yaw'), 'in'],
			[signKey('meter:bus-low', 'yaw'), 'in']
		);
		expect(first?.sign).toBe('meter:bus-high@gateway');
		expect(splitKey(second?.sign ?? '')).toEqual({
			sign: HIGH,
			place: 'yaw',
			before: 'in',
			beforeAt: 'gateway'
		});
		expect(other?.sign).toBe('meter:bus-low@yaw');
	});

	it('read again elsewhere tells of what is between the two alone', () => {
		const [, again] = read([signKey(HIGH, 'brake'), 'in'], [signKey(HIGH, 'yaw'), 'in']);
		const [once, twice] = [signKey(HIGH, 'yaw'), again?.sign ?? ''];
		// Shorted to supply it is so everywhere: that it is good once more says nothing new.
		const short = 'bus-high-to-supply@power-steering';
		expect(goodUnder(short, once)).toBeLessThan(0.5);
		expect(goodUnder(short, twice)).toBeGreaterThan(0.95);
		// A branch that is open is seen at its own end, whatever was read before.
		const open = 'bus-high-branch-open@yaw';
		const [, ohms] = read([signKey(OHMS, 'brake'), 'in'], [signKey(OHMS, 'yaw'), 'in']);
		const ownEnd = goodUnder(open, signKey(OHMS, 'yaw'));
		expect(goodUnder(open, ohms?.sign ?? '')).toBeCloseTo(ownEnd, 2);
		expect(ownEnd).toBeLessThan(0.6);
	});

	it('is not worth the way to another module where the first reading was good', () => {
		const test = testsFor(type).find(({ id }) => id === `${HIGH}@park-brake`);
		if (!test) throw new Error('no such test');
		const seen = { [signKey(HIGH, 'gateway')]: 'in' } as Record<SignKey, string>;
		expect(afterSameLine(test, (key) => seen[key], type).signs.map((key) => splitKey(key).beforeAt)).toEqual([
			'gateway'
		]);
		expect(afterSameLine(test, () => undefined, type)).toBe(test);
	});
});
