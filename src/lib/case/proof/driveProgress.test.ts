import { describe, expect, it } from 'vitest';
import { codeKey } from '../../core/codes/codeKey';
import type { HeardCode } from '../entries/live-recording/payload';
import { PAYLOADS } from '../entries/registry';
import { cameBack } from '../listen/hearing';
import { driveEntry, driveHeadline, driveProgress } from './driveProgress';
import type { DriveGoal, ExposureGoal } from './provingDrive';

const BRAKE = codeKey({ address: '1010', dtc: '404513' });
const goal = (name: string, codes: DriveGoal['codes'] = []): DriveGoal => ({
	name,
	words: name,
	codes,
	condition: {
		kind: 'compare',
		left: { kind: 'signal', signal: 'vehicle' },
		is: 'above',
		right: { kind: 'value', value: 20 },
		hysteresis: 0
	},
	notRead: []
});
const plan = { tasks: [goal('above 20', [BRAKE]), goal('a bend')], exposure: null, minutes: 6, km: 3.2 };
const exposure: ExposureGoal = { km: 10, for: 'C0045-13', when: '', showsWhen: null, so: '' };
const nothing = { km: 0, topKmh: 0, stops: 0, seconds: 0, bands: [] };
const heard = (address: string, status: number): HeardCode[] => [
	{ atS: 5, address, dtc: '404513', status, kmh: 43 }
];
const NONE = { covered: [], now: [], heard: [], back: [] };
const after = (codes: HeardCode[]) =>
	driveProgress(plan, nothing, 'dry', {
		...NONE,
		heard: codes,
		back: cameBack(codes, { standing: [], following: [] }, {})
	});

describe('how far a proving drive is', () => {
	it('takes the word of the module that the code is in, and of no other', () => {
		expect(after(heard('1010', 0x2f)).goals[0]?.standing).toBe('came-back');
		expect(after(heard('1010', 0x00)).goals[0]?.standing).toBe('module-says-run');
		// The same code in another module is another code.
		expect(after(heard('1020', 0x2f)).goals[0]?.standing).toBe('open');
		expect(after(heard('1020', 0x00)).goals[0]?.standing).toBe('open');
	});

	it('counts what the signals met, also before a reload, and shows what holds right now', () => {
		const { goals, left } = driveProgress(plan, nothing, 'dry', {
			...NONE,
			covered: ['a bend'],
			now: ['above 20']
		});
		expect(goals.map(({ standing }) => standing)).toEqual(['now', 'met']);
		expect(left).toBe(1);
	});

	it('is complete with every goal covered and every kilometre driven', () => {
		const all = { ...NONE, covered: ['a bend', 'above 20'] };
		expect(driveProgress(plan, nothing, 'dry', all).complete).toBe(true);
		const far = driveProgress({ ...plan, exposure }, { km: 4, bands: [] }, 'dry', all);
		expect(far).toMatchObject({ complete: false, countsKm: 4, furtherKm: 6 });
	});

	it('is said in a line: the plan, what is left, what failed it', () => {
		const open = driveProgress(plan, nothing, 'dry', NONE);
		expect(driveHeadline(plan, open, false, [])).toBe('In 6 min and 3.2 km every test can run');
		expect(driveHeadline(plan, open, true, [])).toBe('2 of 2 still to cover');
		expect(driveHeadline(plan, open, true, ['C0045-13 in Brake control'])).toContain('It came back');
		expect(driveHeadline({ ...plan, tasks: [] }, open, true, [])).toBe('No test waits for a drive');
		const done = driveProgress(plan, nothing, 'dry', { ...NONE, covered: ['a bend', 'above 20'] });
		expect(driveHeadline(plan, done, true, [])).toBe('All of it is covered');
	});

	it('becomes an entry, however short it was', () => {
		const entry = driveEntry(
			{ ...nothing, km: 0.0001, seconds: 3 },
			{ road: 'dry', driver: 'Ana', note: 'rain' },
			['a bend'],
			[]
		);
		expect(PAYLOADS['proving-drive'].parse(entry)).toMatchObject({
			distanceKm: 0.01,
			topSpeedKmh: 1,
			note: 'rain. Covered: a bend'
		});
	});
});
