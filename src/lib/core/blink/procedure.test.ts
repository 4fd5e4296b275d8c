import { describe, expect, it } from 'vitest';
import {
	proceed,
	PROCEDURE_START,
	progressWords,
	type ProcedureEvent,
	type ProcedureState,
	type ProcedureStep
} from './procedure';

const STEPS: ProcedureStep[] = [
	{ do: 'say', words: 'Key off' },
	{ do: 'hold', words: 'Bridge the plug', atLeastS: 1.5, atMostS: 3 },
	{ do: 'press', words: 'Press the pedal', times: 4, withinS: 3 }
];
const run = (...events: [ProcedureEvent['kind'], number][]): ProcedureState =>
	events.reduce((state, [kind, atS]) => proceed(STEPS, state, { kind, atS }), PROCEDURE_START);
const BRIDGED: [ProcedureEvent['kind'], number][] = [
	['down', 0],
	['down', 1],
	['up', 3]
];

describe('a procedure by pedal and bridge', () => {
	it('goes on step by step when each is done in its time', () => {
		expect(run(['down', 0]).at).toBe(1);
		expect(run(...BRIDGED)).toMatchObject({ at: 2, failed: null });
		expect(run(...BRIDGED, ['down', 4], ['down', 5], ['down', 6], ['down', 6.9]).at).toBe(3);
	});

	it('takes the whole time and not a moment more', () => {
		expect(run(...BRIDGED, ['down', 4], ['down', 5], ['down', 6], ['down', 7]).at).toBe(3);
		const late = run(...BRIDGED, ['down', 4], ['down', 5], ['down', 6], ['down', 7.01]);
		expect(late).toMatchObject({
			at: 2,
			presses: [7.01],
			failed: expect.stringMatching(/^Too slow: 3 of 4 within 3.0 s/)
		});
		expect(run(['down', 0], ['down', 1], ['up', 2.5]).at).toBe(2);
	});

	it('begins a step again where it was let go too early or held too long, and keeps what was done', () => {
		expect(run(['down', 0], ['down', 1], ['up', 2])).toMatchObject({
			at: 1,
			downS: null,
			failed: expect.stringMatching(/^Let go after 1.0 s/)
		});
		const long = run(['down', 0], ['down', 1], ['tick', 4.1]);
		expect(long).toMatchObject({ at: 1, failed: expect.stringMatching(/^Too long/) });
		expect(proceed(STEPS, long, { kind: 'up', atS: 5 }).at).toBe(1);
		expect(run(['down', 0], ['down', 1], ['tick', 4.1], ['down', 6], ['up', 8]).at).toBe(2);
	});

	it('a press that nobody follows up runs out by itself', () => {
		expect(run(...BRIDGED, ['down', 4], ['tick', 6.9]).presses).toEqual([4]);
		expect(run(...BRIDGED, ['down', 4], ['tick', 7.1])).toMatchObject({
			presses: [],
			failed: expect.stringMatching(/1 of 4/)
		});
	});

	it('says how far a step is, and nothing moves once all is done', () => {
		const [, hold, press] = STEPS as [ProcedureStep, ProcedureStep, ProcedureStep];
		expect(progressWords(hold, run(['down', 0], ['down', 1]), 2)).toBe('1.0 s of 1.5 s');
		expect(progressWords(hold, run(['down', 0], ['down', 1]), 2.6)).toBe('1.6 s: let go');
		expect(progressWords(press, run(...BRIDGED, ['down', 4], ['down', 5]), 5.5)).toBe('2 of 4, 1.5 s left');
		const done = run(...BRIDGED, ['down', 4], ['down', 5], ['down', 6], ['down', 6.9]);
		expect(proceed(STEPS, done, { kind: 'down', atS: 9 })).toEqual(done);
	});
});
