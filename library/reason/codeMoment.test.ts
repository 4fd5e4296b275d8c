import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../index';
import { codeForSigns } from './codeMoment';
import { reasonModel } from './model';

const ALL = 0xff;
const values = (...told: [id: string, raw: string][]) => [{ values: told.map(([id, raw]) => ({ id, raw })) }];
const told = (status: number, more: object = {}, mask: number | null = ALL) =>
	codeForSigns({ dtc: '404513', status, ageingCycles: null, snapshots: [], ...more }, mask);

describe('what a module keeps of the moment and the time since', () => {
	it('speed, supply and outside temperature are of the first snapshot', () => {
		const snapshots = [
			...values(['F40D', '37'], ['F442', '2EE0'], ['F446', '47']),
			...values(['F40D', '00'], ['F446', '28'])
		];
		expect(told(0x2f, { snapshots })).toMatchObject({ setAtKmh: 55, setAtVolts: 12, setAtC: 31 });
		expect(told(0x2f)).toMatchObject({ setAtKmh: null, setAtVolts: null, setAtC: null });
	});

	it.each([
		['confirmed and not pending: its last whole cycle passed', 0x48, {}, ALL, true],
		['confirmed and pending: its last whole cycle failed', 0x4c, {}, ALL, false],
		['only pending: nothing has passed', 0x44, {}, ALL, false],
		['a module that has no pending bit says nothing by it', 0x48, {}, 0xfb, false],
		['a mask that nobody told says nothing', 0x48, {}, null, false],
		['an ageing counter counts cycles that passed', 0x4c, { ageingCycles: 3 }, ALL, true],
		['one that stands at nought does not', 0x4c, { ageingCycles: 0 }, ALL, false]
	])('%s', (_, status, more, mask, passed) => {
		expect(told(status, more, mask).passedSince).toBe(passed);
	});

	it('what was set in warm air speaks for what opens with warmth, at that wheel alone', () => {
		const lichen = vehicleTypes.get('norvane-lichen');
		if (!lichen) throw new Error('no such vehicle in the library');
		const model = reasonModel(lichen);
		const table = model.sign('wheel-set-air@rear-left');
		if (!table) throw new Error('no table');
		const warm = table.outcomes.indexOf('warm');
		const ratio = (row: number) =>
			(table.chance[row * table.outcomes.length + warm] ?? 0) / (table.sound[warm] ?? 1);
		const seen = new Set<string>();
		for (const [row, { fault }] of model.rows.entries()) {
			const one = model.faults[fault];
			if (!one) continue;
			const opens =
				one.fault.at === 'corner' && one.place === 'rear-left' && one.fault.when?.aboveC !== undefined;
			expect(ratio(row), `${one.fault.id} ${one.place}`).toBeCloseTo(opens ? 2 : 1);
			if (opens) seen.add(one.fault.id);
		}
		expect(seen.size).toBeGreaterThan(0);
	});
});
