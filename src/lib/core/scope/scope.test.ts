import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analyseCapture } from './analyseCapture';
import { analyseChannel } from './analyseChannel';
import { drawnPlan, SOUND, TRIALS, tryOver } from './detection.fixture';
import { captureOf, makeSignal, normalNumbers, type SignalPlan } from './signals.fixture';

const RATE = 50_000;
const plan = (over: Partial<SignalPlan> = {}): SignalPlan => ({
	kind: 'active',
	rateHz: RATE,
	durationS: 2,
	teeth: 48,
	hz: 194,
	...over
});
const look = (over: Partial<SignalPlan> = {}, options = {}) => {
	const made = plan(over);
	return analyseChannel('front_left', makeSignal(made), made.rateHz, 0, options);
};
const types = (channel: ReturnType<typeof look>) => channel.findings.map(({ type }) => type);

describe('one channel', () => {
	it('finds the two levels of an active signal, its frequency and its duty', () => {
		const channel = look({ lowV: 0.82, highV: 1.61, duty: 0.3, snrDb: 30 });
		expect(channel.kind).toBe('active');
		expect(channel.lowV).toBeCloseTo(0.82, 2);
		expect(channel.highV).toBeCloseTo(1.61, 2);
		expect(channel.peakToPeakV).toBeCloseTo(0.79, 2);
		expect(channel.medianHz).toBeCloseTo(194, 0);
		expect(channel.duty).toBeCloseTo(0.3, 2);
		expect(channel.pulses).toBe(388);
		expect(channel.findings).toEqual([]);
	});

	it('fits a passive wave’s volts to its frequency: 2 V peak to peak at 100 Hz are 0.02 V/Hz, at any bias', () => {
		for (const biasV of [0, 2.2]) {
			const channel = look({ kind: 'passive', hz: 80, endHz: 240, biasV, snrDb: 40 });
			expect(channel.kind).toBe('passive');
			expect(channel.voltsPerHz).toBeCloseTo(0.02, 3);
			expect(channel.minHz).toBeCloseTo(80, -1);
			expect(channel.maxHz).toBeCloseTo(240, -1);
			expect(channel.findings).toEqual([]);
		}
	});

	it('a missing tooth is one gap of two periods in each turn, at its times and its place', () => {
		const channel = look({ missing: [20], startTurn: 0, snrDb: 20 });
		const [finding] = channel.findings;
		expect(types(channel)).toEqual(['missing-tooth']);
		expect(finding).toMatchObject({ perRev: true, count: 8 });
		expect(finding?.value).toBeCloseTo(2, 1);
		expect(channel.teethPerRev).toBe(48);
		// The last tooth before the gap is the 19th; a turn takes 48/194 s.
		for (const [turn, time] of (finding?.times ?? []).entries())
			expect(time).toBeCloseTo((19 + 48 * turn) / 194, 3);
		// The capture begins with tooth 0 half past, so its first edge is tooth 1.
		expect(finding?.teeth).toEqual([19]);
		expect(channel.ring?.seen[19]).toBe(0);
		expect(channel.ring?.seen.filter((share) => share === 1)).toHaveLength(47);
	});

	it('counts the missing tooth with the ring, whether the number of teeth is told or not', () => {
		expect(look({ missing: [20] }, { teeth: 48 }).teethPerRev).toBe(48);
		expect(look({ missing: [20, 24, 31], teeth: 60 }).teethPerRev).toBe(60);
	});

	it('a gap seen once in less than a turn is told as one that cannot be told yet', () => {
		const channel = look({ missing: [20], startTurn: 0, durationS: 0.22 });
		expect(types(channel)).toEqual(['missing-tooth']);
		expect(channel.findings[0]?.perRev).toBe(false);
		expect(channel.findings[0]?.text).toContain('two turns');
	});

	it('the same gap once in many turns is a contact, not a tooth', () => {
		const channel = look({ dead: [[0.9, 0.906]] }, { teeth: 48 });
		expect(types(channel)).toEqual(['dropout']);
		expect(channel.findings[0]?.times[0]).toBeCloseTo(0.9, 1);
	});

	it('a wheel that slows to a stop, stands and starts again loses no signal', () => {
		const rate = 20_000;
		const teethAt = (t: number) => (t < 2 ? 100 * t - 25 * t * t : t < 2.5 ? 100 : 100 + 25 * (t - 2.5) ** 2);
		const volts = Float32Array.from({ length: 5 * rate }, (_, i) =>
			teethAt(i / rate) % 1 < 0.5 ? 1.6 : 0.8
		);
		expect(analyseChannel('x', volts, rate, 0).findings).toEqual([]);
	});

	it('a signal that stops at full speed is lost, whatever it rests at', () => {
		for (const rest of [0, 0.8, 1.6]) {
			const volts = makeSignal(plan());
			volts.fill(rest, 1.2 * RATE);
			const channel = analyseChannel('x', volts, RATE, 0);
			expect(types(channel)).toEqual(['dropout']);
			expect(channel.findings[0]?.times[0]).toBeCloseTo(1.2, 1);
		}
	});

	it('a dip below both levels inside one tooth is a loss too short to cost a pulse', () => {
		const volts = makeSignal(plan({ highV: 1.6, lowV: 0.8 }));
		const at = 0.5 * RATE;
		const up = Array.from({ length: 600 }, (_, i) => at + i).find((i) => volts[i] === Math.fround(0.8)) ?? 0;
		volts.fill(0, up + 10, up + 100);
		expect(types(analyseChannel('x', volts, RATE, 0))).toEqual(['dropout']);
	});

	it('swelling once a turn is run-out, and says how deep; five in a hundred are not', () => {
		for (const kind of ['active', 'passive'] as const) {
			const channel = look({ kind, runOut: 0.3, teeth: 44, snrDb: 25 });
			expect(types(channel)).toEqual(['run-out']);
			expect(channel.findings[0]?.value).toBeCloseTo(0.3, 1);
			expect(channel.teethPerRev).toBe(44);
			expect(types(look({ kind, runOut: 0.05, teeth: 44, snrDb: 25 }))).toEqual([]);
		}
	});

	it('a constant voltage is flat, however noisy; so is what no module would count', () => {
		const normal = normalNumbers(3);
		for (const level of [0, 2.5, 12.1]) {
			const volts = Float32Array.from({ length: 40_000 }, () => level + 0.02 * normal());
			const channel = analyseChannel('x', volts, RATE, 0);
			expect(channel).toMatchObject({ kind: 'flat', pulses: 0, medianHz: null });
			expect(channel.lowV).toBeCloseTo(level, 2);
			expect(types(channel)).toEqual(['flat']);
		}
		expect(look({ kind: 'passive', peakAt100Hz: 0.004 }).kind).toBe('flat');
	});

	it('noise as large as a quarter of the swing is said to be noise', () => {
		expect(types(look({ snrDb: 5 }))).toContain('noise');
		expect(types(look({ snrDb: 12 }))).toEqual([]);
	});

	it('says the same of the same capture, whatever the volts are multiplied by or the time begins at', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.5, max: 8, noNaN: true }),
				fc.double({ min: -5, max: 500, noNaN: true }),
				(by, startS) => {
					const volts = makeSignal(plan({ missing: [7], durationS: 1, snrDb: 25 }));
					const one = analyseChannel('x', volts, RATE, 0);
					const other = analyseChannel(
						'x',
						volts.map((value) => value * by),
						RATE,
						startS
					);
					expect(other.pulses).toBe(one.pulses);
					expect(other.teethPerRev).toBe(one.teethPerRev);
					expect(types(other)).toEqual(types(one));
					expect(other.findings[0]?.times[0]).toBeCloseTo((one.findings[0]?.times[0] ?? 0) + startS, 3);
				}
			),
			{ numRuns: 25 }
		);
	});

	it('finds the same in millions of samples as in thousands', () => {
		const fine = makeSignal(plan({ rateHz: 1_000_000, missing: [20], snrDb: 20, runOut: 0 }));
		const channel = analyseChannel('x', fine, 1_000_000, 0);
		expect(types(channel)).toEqual(['missing-tooth']);
		expect(channel.teethPerRev).toBe(48);
		expect(channel.medianHz).toBeCloseTo(194, 0);
	});

	it('empty and tiny captures are no signal and no crash', () => {
		for (const length of [0, 1, 2, 5])
			expect(analyseChannel('x', new Float32Array(length), RATE, 0).kind).toBe('flat');
	});
});

describe('two channels', () => {
	it('the weaker passive one is held against its mate by volts per hertz, though it turns faster', () => {
		const { channels, comparison } = analyseCapture(
			captureOf(RATE, {
				rear_left: makeSignal(plan({ kind: 'passive', peakAt100Hz: 0.4, hz: 220, snrDb: 30 })),
				rear_right: makeSignal(plan({ kind: 'passive', hz: 180, snrDb: 30, seed: 2 }))
			})
		);
		expect(channels.map(types)).toEqual([['low-amplitude'], []]);
		expect(channels[0]?.findings[0]?.value).toBeCloseTo(0.4, 1);
		expect(comparison?.reference).toBe('rear_right');
		expect(comparison?.others[0]?.frequencyRatio).toBeCloseTo(220 / 180, 2);
		expect(comparison?.text).toContain('1.22 times as many pulses');
	});

	it('compares tooth by tooth where both rings are known, however they stand to each other', () => {
		const both = (missing: number[]) =>
			analyseCapture(
				captureOf(RATE, {
					front_left: makeSignal(plan({ missing, startTurn: 0.1 })),
					front_right: makeSignal(plan({ missing: [12], startTurn: 0.7 }))
				}),
				{ teeth: 48 }
			).comparison?.others[0]?.largestToothDifference;
		expect(both([30])).toBeLessThan(0.1);
		expect(both([30, 33])).toBeGreaterThan(0.8);
		const told = analyseCapture(
			captureOf(RATE, { front_left: makeSignal(plan({ missing: [30] })), front_right: makeSignal(plan()) }),
			{ teeth: 48 }
		).comparison?.text;
		expect(told).toContain('tooth against tooth they differ by up to 1.0 tooth periods');
	});

	it('is plain about what is whole and what is not', () => {
		const sound = makeSignal(plan());
		expect(analyseCapture(captureOf(RATE, { front_left: sound, front_right: sound })).verdict).toBe(
			'All signals are whole: no gap, no dropout, no spike.'
		);
		expect(
			analyseCapture(captureOf(RATE, { front_left: new Float32Array(1000), front_right: sound })).verdict
		).toBe('front left: no signal.');
	});
});

describe('over many drawn signals', () => {
	it.each(TRIALS)('$name', (trial) => {
		for (const snrDb of [undefined, 20])
			expect(tryOver(trial, 12, snrDb).wrong, `at ${snrDb} dB`).toEqual([]);
	});

	it('a sound signal has no finding at 10 dB either', () => {
		expect(tryOver(SOUND, 12, 10).wrong).toEqual([]);
	});

	it('the drawn signals are of both families and all speeds', () => {
		const plans = Array.from({ length: 60 }, (_, i) => drawnPlan(i + 1));
		expect(new Set(plans.map(({ kind }) => kind)).size).toBe(2);
		expect(Math.max(...plans.map(({ hz }) => hz)) / Math.min(...plans.map(({ hz }) => hz))).toBeGreaterThan(
			5
		);
	});
});
