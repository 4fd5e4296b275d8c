import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canFinish } from './canFinish';
import { dueWork, unsettled, type Cause, type Tried } from './dueWork';
import { inOrder } from './inOrder';
import { cover, isComplete, isCovered, noCoverage, type DrivePhase } from './learningDrive';
import { repairWorth, type RepairOption } from './repairWorth';

import { newtonMetres, poundFeet, torqueIsRight, torqueWords } from './torque';

describe('an order of work', () => {
	it('puts each after those that it waits for, on any graph without a circle', () => {
		const graph = fc.array(fc.array(fc.nat(11), { maxLength: 4 }), { minLength: 1, maxLength: 12 });
		fc.assert(
			fc.property(graph, fc.nat(), (edges, turn) => {
				// Each waits only for those that were named before it; then they are told in another order.
				const work = edges.map((after, i) => ({
					id: String(i),
					after: after.filter((one) => one < i).map(String)
				}));
				const told = [...work.slice(turn % work.length), ...work.slice(0, turn % work.length)];
				const ordered = inOrder(told);
				if (!ordered.ok) throw new Error(ordered.error);
				expect([...ordered.value].sort()).toEqual(work.map(({ id }) => id).sort());
				for (const { id, after } of work)
					for (const first of after)
						expect(ordered.value.indexOf(first)).toBeLessThan(ordered.value.indexOf(id));
			})
		);
	});

	it('is refused where some wait for each other, which are named', () => {
		const circle = inOrder([
			{ id: 'a', after: [] },
			{ id: 'b', after: ['d'] },
			{ id: 'c', after: ['b'] },
			{ id: 'd', after: ['c'] }
		]);
		expect(circle).toEqual({ ok: false, error: 'these wait for each other: b, c, d' });
	});
});

describe('what is due', () => {
	const because = (id: string, at: number): Cause => ({ id, at, because: 'a repair' });
	const tried = (id: string, at: number, state: Tried['state']): Tried => ({ id, at, state });
	const after = (id: string) => ({ zero: ['coding'], drive: ['coding', 'zero'] })[id] ?? [];
	const stand = (causes: Cause[], tries: Tried[]) =>
		dueWork(['coding', 'zero', 'drive'], after, causes, tries).map(({ id, state, waitsFor }) =>
			[id, state, ...waitsFor].join(' ')
		);
	const all = [because('drive', 1), because('coding', 1), because('zero', 1)];

	it('stands in the order of doing, each waiting for what comes first', () => {
		expect(stand(all, [])).toEqual(['coding due', 'zero due coding', 'drive due coding zero']);
		expect(stand(all, [tried('coding', 2, 'done')])).toEqual(['coding done', 'zero due', 'drive due zero']);
	});

	it('is due anew after another cause, whatever was done before', () => {
		const again = [...all, because('zero', 5)];
		expect(stand(again, [tried('zero', 3, 'done')])).toContain('zero due coding');
		expect(stand(again, [tried('zero', 6, 'done')])).toContain('zero done coding');
		expect(stand(again, [tried('zero', 3, 'waived')])).toContain('zero due coding');
	});

	it('stays due where it failed or was cut short, and says so; once done a later cut changes nothing', () => {
		expect(stand(all, [tried('coding', 2, 'interrupted')])[0]).toBe('coding interrupted');
		expect(stand(all, [tried('coding', 2, 'interrupted'), tried('coding', 3, 'failed')])[0]).toBe(
			'coding failed'
		);
		expect(stand(all, [tried('coding', 2, 'done'), tried('coding', 3, 'interrupted')])[0]).toBe(
			'coding done'
		);
		const works = dueWork(['coding', 'zero'], after, all, [tried('zero', 2, 'waived')]);
		expect(unsettled(works).map(({ id }) => id)).toEqual(['coding']);
	});

	it('is nothing where nothing calls for it', () => {
		expect(stand([], [tried('coding', 2, 'done')])).toEqual([]);
	});
});

describe('a learning drive', () => {
	const phases: DrivePhase[] = [
		{ id: 'band', words: '', speedKmh: [25, 60], steeringDeg: [-20, 20], forS: 3, last: false },
		{ id: 'left', words: '', speedKmh: [5, 40], steeringDeg: [90, 720], forS: 1, last: false },
		{ id: 'stop', words: '', speedKmh: [0, 0.3], steeringDeg: [-720, 720], forS: 1, last: true }
	];
	const drive = (...legs: [seconds: number, kmh: number, degrees: number | null][]) => {
		let coverage = noCoverage(phases);
		for (const [seconds, kmh, degrees] of legs)
			for (let i = 0; i < Math.round(seconds / 0.2); i++)
				coverage = cover(phases, coverage, 0.2, kmh, degrees);
		return coverage;
	};

	it('is complete once every phase was held for its time, in pieces or at once', () => {
		const coverage = drive([2, 40, 0], [0.6, 20, 120], [1, 30, -5], [0.4, 25, 95], [1, 0, 0]);
		expect(coverage.band).toBeCloseTo(3, 6);
		expect(isComplete(phases, coverage)).toBe(true);
	});

	it('does not take a stop before the rest, nor a turn the other way, nor speed with the wheel turned', () => {
		const early = drive([5, 0, 0], [3, 20, -120], [5, 40, 60]);
		expect(early).toEqual({ band: 0, left: 0, stop: 0 });
		expect(isCovered(phases[0] as DrivePhase, early)).toBe(false);
	});

	it('counts neither a hole in the readings nor an angle that nobody knows', () => {
		expect(cover(phases, noCoverage(phases), 4, 40, 0).band).toBe(0);
		expect(drive([5, 40, null]).band).toBe(0);
	});
});

describe('whether a shop can finish', () => {
	const needs = [
		{ function: 'coding', before: true, for: 'Coding' },
		{ function: 'area', before: false, for: 'Learning drive' }
	];
	it.each([
		[['coding', 'area'], 'yes', []],
		[['coding'], 'partly', ['area']],
		[['area'], 'sublet', ['coding']],
		[[], 'sublet', ['coding', 'area']]
	])('owning %j: %s', (owned, answer, missing) => {
		const told = canFinish(needs, new Set(owned));
		expect([told.answer, told.missing.map((one) => one.function)]).toEqual([answer, missing]);
	});
});

describe('what a repair is worth', () => {
	const ring: RepairOption = { minutes: 60, accessMinutes: 15, accessLeft: 15, price: 5, comesBack: 0.3 };
	const hub: RepairOption = { minutes: 85, accessMinutes: 15, accessLeft: 15, price: 240, comesBack: 0.02 };
	const young = { odometerKm: 0, harsh: false };

	it('is work, price and the second visit as often as it comes, worked out by hand', () => {
		// 60 + 15 now; 5 of money at 2 min each; 30 % of another 60 + 60 + 15 + 10.
		const worth = repairWorth(ring, young, 2);
		expect(worth).toEqual({
			minutesNow: 75,
			comesBack: expect.closeTo(0.3, 12),
			expectedMinutes: expect.closeTo(75 + 10 + 0.3 * 145, 9)
		});
		// Two chances instead of one after 150,000 km, three in salt.
		expect(repairWorth(ring, { odometerKm: 150_000, harsh: false }, 2).comesBack).toBeCloseTo(
			1 - 0.7 ** 2,
			12
		);
		expect(repairWorth(ring, { odometerKm: 150_000, harsh: true }, 2).comesBack).toBeCloseTo(
			1 - 0.7 ** 3,
			12
		);
	});

	it('what is already apart need not be paid again', () => {
		const apart = repairWorth({ ...ring, accessLeft: 0 }, young, 2);
		expect(repairWorth(ring, young, 2).expectedMinutes - apart.expectedMinutes).toBeCloseTo(15, 9);
	});

	it('the cheap way is worth less the more the vehicle goes through', () => {
		const lead = (duty: { odometerKm: number; harsh: boolean }) =>
			repairWorth(hub, duty, 0.7).expectedMinutes - repairWorth(ring, duty, 0.7).expectedMinutes;
		expect(lead(young)).toBeGreaterThan(0);
		expect(lead({ odometerKm: 200_000, harsh: true })).toBeLessThan(lead(young));
	});
});

describe('torque', () => {
	it('goes to pound-feet and back', () => {
		expect(poundFeet(100)).toBeCloseTo(73.756, 3);
		fc.assert(
			fc.property(fc.double({ min: 0.1, max: 1000, noNaN: true }), (torque) => {
				expect(newtonMetres(poundFeet(torque))).toBeCloseTo(torque, 9);
			})
		);
	});

	it('is right within what a hand wrench is good for', () => {
		for (const [drawn, right] of [
			[100, true],
			[92, true],
			[108, true],
			[91, false],
			[109, false]
		] as const)
			expect(torqueIsRight(100, drawn), String(drawn)).toBe(right);
	});

	it('is told stage by stage, backed off after the first, turned on after the last', () => {
		expect(torqueWords({ newtonMetres: [70, 200], backOffDeg: 180 })).toBe(
			'70 N·m (52 lb·ft), back off 180°, 200 N·m (148 lb·ft)'
		);
		expect(torqueWords({ newtonMetres: [40, 90], angleDeg: 45 })).toBe(
			'40 N·m (30 lb·ft), 90 N·m (66 lb·ft), then 45° on'
		);
	});
});
