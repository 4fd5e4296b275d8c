import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { projectCase } from '../../case/progress/project';
import { BRAKE, OPEN, ThreadMaker } from '../../case/thread/threads.fixture';
import type { ProvenRepair } from '../db/trackRecord';
import { countsByFault, learnedLines, spokenFor } from './learned';

const type = [...vehicleTypes.values()].find(({ id }) => id === 'brindle-marlow-16');
if (!type) throw new Error('the type is there');
/** A case of November at 120 000 km, with an open wheel circuit. */
const here = () => {
	const maker = new ThreadMaker();
	maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 120_000 });
	maker.scan([[BRAKE, OPEN, 0x2f]]);
	return { caseId: 'here', view: projectCase(maker.thread), now: '2026-11-24T09:00:00.000Z' };
};
const proven = (change: Partial<ProvenRepair> = {}): ProvenRepair => ({
	caseId: 'other',
	number: 1,
	typeId: 'brindle-marlow-16',
	kind: 'renew-lead',
	place: 'rear-left',
	codes: ['C0045'],
	km: 120_000,
	at: '2025-11-20T09:00:00.000Z',
	...change
});
const weightOf = (change: Partial<ProvenRepair>) => spokenFor([proven(change)], type, here())[0]?.weight;

describe('what a shop has proven, for one case', () => {
	it('never counts the case itself, nor one of another type with other codes', () => {
		expect(spokenFor([proven({ caseId: 'here' })], type, here())).toEqual([]);
		expect(spokenFor([proven({ typeId: 'velmora-skiff', codes: ['U0121'] })], type, here())).toEqual([]);
	});

	it('counts whole where all is alike, and less by vehicle, codes, odometer and season', () => {
		const whole = weightOf({});
		expect(whole).toBeCloseTo(1, 6);
		for (const other of [
			{ typeId: 'velmora-skiff' },
			{ codes: ['U0121'] },
			{ km: 10_000 },
			{ at: '2026-05-20T09:00:00.000Z' }
		])
			expect(weightOf(other)).toBeLessThan(0.9);
	});

	it('shares what a repair says among the faults that it cures', () => {
		const spoken = spokenFor([proven(), proven({ caseId: 'two', km: 10_000 })], type, here());
		const counts = countsByFault(spoken);
		const said = spoken.reduce((sum, { weight }) => sum + weight, 0);
		expect(Object.values(counts).reduce((sum, count) => sum + count, 0)).toBeCloseTo(said, 9);
		expect(Object.keys(counts)).toContain('lead-open');
	});

	it('is said with how many were alike in what, the most frequent first', () => {
		const spoken = spokenFor(
			[
				proven(),
				proven({ caseId: 'two', at: '2026-05-20T09:00:00.000Z' }),
				proven({ caseId: 'three', kind: 'renew-sensor', typeId: 'velmora-skiff', km: null })
			],
			type,
			here()
		);
		expect(learnedLines(spoken)).toMatchObject([
			{
				count: 2,
				of: 3,
				alike: '2 on this type, 2 with such codes, 2 about as far driven, 1 at this time of the year'
			},
			{
				count: 1,
				of: 3,
				alike: '0 on this type, 1 with such codes, 0 about as far driven, 1 at this time of the year'
			}
		]);
	});
});
