import { describe, expect, it } from 'vitest';
import type { TriedThing } from '../entries/live-recording/payload';
import { begun, COMES_AND_GOES } from './proof.fixture';
import { standingItems } from '../progress/standingItems';
import { standing } from '../thread/thread';
import { BRAKE, OPEN } from '../thread/threads.fixture';

const lead: TriedThing = {
	position: 'rear-left',
	does: 'move',
	is: 'lead',
	label: 'lead',
	seconds: 10,
	changes: 3
};
const wet: TriedThing = { ...lead, does: 'wet', label: 'water' };
const still = (one: TriedThing, seconds: number): TriedThing => ({ ...one, seconds, changes: 0 });

describe('the very provocation, repeated after the repair', () => {
	const thread = () => begun(COMES_AND_GOES).provoked(lead, still(wet, 12));
	const proven = (...after: TriedThing[]) => {
		const made = thread().proving();
		if (after.length > 0) made.provoked(...after);
		made.scan([[BRAKE, OPEN, 0]]);
		return made.code;
	};

	it('is part of the proof: without it nothing is proven', () => {
		const code = proven();
		expect(code.verdict).toBe('not-all-shown');
		expect(code.because).toContain('3 times in 10 s with the lead moved');
		expect(code.marks.map(({ mark }) => mark)).toContain('provoked');
	});

	it('long enough, it proves what comes and goes without a count of kilometres', () => {
		expect(proven(still(lead, 5)).verdict).toBe('not-all-shown');
		expect(proven(still(lead, 20)).verdict).toBe('proven-clear');
	});

	it('another provocation than the one that showed it proves nothing', () => {
		expect(proven(still(wet, 300)).verdict).toBe('not-all-shown');
	});

	it('a change after the repair is the fault still there', () => {
		const code = proven({ ...lead, seconds: 20, changes: 1 });
		expect(code.verdict).toBe('not-all-shown');
		expect(code.marks.find(({ mark }) => mark === 'provoked')?.state).toBe('bad');
	});

	it('after a second repair all that was seen before it counts, and the repeat begins anew', () => {
		const made = thread()
			.repair()
			.provoked({ ...lead, seconds: 10, changes: 1 })
			.proving();
		expect(made.scan([[BRAKE, OPEN, 0]]) && made.code.verdict).toBe('not-all-shown');
		const again = made.provoked(still(lead, 30)) && made.scan([[BRAKE, OPEN, 0]]) && made.code;
		expect(again && again.verdict).toBe('proven-clear');
	});

	it('a change where none was before the repair is not mended either', () => {
		const code = proven(still(lead, 60), { ...wet, changes: 2, seconds: 9 });
		expect(code.verdict).toBe('not-all-shown');
		expect(code.because).toContain('changed 2 times since the repair, with water');
	});

	it('seconds by hand are no clean drive, and settle nothing that a drive found', () => {
		const made = begun(COMES_AND_GOES).dropsOut().proving().provoked(still(lead, 60));
		made.scan([[BRAKE, OPEN, 0]]);
		expect(made.code.marks.find(({ mark }) => mark === 'live-clean')?.state).toBe('open');
		const found = begun(COMES_AND_GOES).proving().dropsOut().provoked(still(lead, 60));
		expect(standingItems(standing(found.thread)).map(({ words }) => words)).toContain('rear left drops out');
	});

	it('what let go by hand stands before the signature until the same thing does not', () => {
		const made = begun(COMES_AND_GOES).proving().provoked(lead);
		const items = () => standingItems(standing(made.thread)).map(({ words }) => words);
		expect(items()).toContain('rear left: its value changed with the lead moved.');
		made.provoked(still(wet, 30));
		expect(items()).toContain('rear left: its value changed with the lead moved.');
		made.provoked(still(lead, 30));
		expect(items().join()).not.toContain('lead moved');
	});
});
