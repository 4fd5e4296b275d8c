import { describe, expect, it } from 'vitest';
import { linkTypes } from '../../../../library';
import { reasonModel } from '../../../../library/reason/model';
import { signKey } from '../../../../library/reason/signs';
import { testsFor, type PlacedTest } from '../../../../library/reason/tests';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';
import type { Outcome } from './diagnosis';
import { Novice } from './novice';
import { summarise } from './trial';

const outcome = (more: Partial<Outcome>): Outcome => ({
	minutes: 10,
	tests: 2,
	wrongParts: 0,
	resolved: true,
	brought: true,
	firstRight: true,
	advised: [],
	calledUnknown: false,
	unknown: false,
	steps: ['scan'],
	...more
});

describe('what a trial comes to', () => {
	it('tells of repairs said to be so sure how many there were and how many held', () => {
		const { calibration } = summarise([
			outcome({ advised: [{ p: 0.95, held: true, wrongPart: false }] }),
			outcome({
				advised: [
					{ p: 0.9, held: false, wrongPart: true },
					{ p: 1, held: true, wrongPart: false },
					{ p: 0.4, held: false, wrongPart: false },
					{ p: null, held: false, wrongPart: true }
				]
			})
		]);
		expect(calibration).toContainEqual({ from: 0.9, to: 1, claims: 3, true: 2 });
		expect(calibration).toContainEqual({ from: 0, to: 0.5, claims: 1, true: 0 });
		expect(calibration.reduce((sum, { claims }) => sum + claims, 0)).toBe(4);
	});

	it('tells which share of all advice bought a wrong part', () => {
		const bad = { p: null, held: false, wrongPart: true };
		const good = { p: 0.9, held: true, wrongPart: false };
		expect(summarise([outcome({ advised: [good, bad] }), outcome({ advised: [good, good] })]).harmRate).toBe(
			0.25
		);
		expect(summarise([outcome({})]).harmRate).toBe(0);
	});

	it('tells how often what is not described was called so, and nothing where there was none', () => {
		const named = [true, true, false].map((calledUnknown) => outcome({ unknown: true, calledUnknown }));
		expect(summarise([...named, outcome({ calledUnknown: true })]).unknownNamedRate).toBeCloseTo(2 / 3);
		expect(summarise([outcome({})]).unknownNamedRate).toBeNull();
	});
});

describe('somebody who is not always careful', () => {
	const [type] = linkTypes;
	if (!type) throw new Error('no vehicle');
	const [tests, model] = [testsFor(type), reasonModel(type)];
	const find = (kind: string) => tests.find((test) => test.kind.id === kind) as PlacedTest;
	const times = 4000;
	const shareOf = (does: (novice: Novice) => boolean) => {
		const novice = new Novice(uniform(mixedSeed(5)));
		return Array.from({ length: times }, () => does(novice)).filter(Boolean).length / times;
	};

	it('does one step in five in an order of their own', () => {
		const advised = find('battery');
		const share = shareOf((novice) => novice.insteadOf(advised, tests) !== advised);
		expect(Math.abs(share - 0.2)).toBeLessThan(0.03);
		expect(shareOf((novice) => novice.insteadOf(advised, []) !== advised)).toBe(0);
	});

	it('misreads three readings in a hundred and forgets as many, but reads a tool’s list as it is', () => {
		const seen = { [signKey('battery', 'vehicle')]: 'in' };
		const battery = find('battery');
		const noted = (novice: Novice) => Object.values(novice.noted(battery, seen, model))[0];
		expect(Math.abs(shareOf((novice) => noted(novice) === 'low') - 0.03)).toBeLessThan(0.01);
		expect(Math.abs(shareOf((novice) => noted(novice) === undefined) - 0.03)).toBeLessThan(0.01);
		expect(shareOf((novice) => novice.noted(find('scan'), seen, model) !== seen)).toBe(0);
	});
});
