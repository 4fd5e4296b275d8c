import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { alignedBy } from './align';
import { analyseLive } from './analyse';
import { conditionsOver } from './conditionsOver';
import { decimate } from './decimate';
import { madeDrive, spoiled } from './drives.fixture';
import type { Recording } from './recording';
import { expectedRateHz } from './refreshRate';
import { oddWheelSentence, toothFit } from './toothCount';
import { chanceToSee, missingToothS, rateSentence } from './visibility';

const drive = (seed: number, durationS = 120) =>
	madeDrive({ seed, rateHz: 20, durationS, noiseKmh: 0.05, stepKmh: 0.01 });
const withChannel = (
	recording: Recording,
	name: string,
	of: (i: number, timeS: number) => number
): Recording => ({
	...recording,
	channels: new Map([...recording.channels, [name, recording.timeS.map((t, i) => of(i, t))]])
});

describe('what is drawn of a long column', () => {
	const timeS = Float64Array.from({ length: 100_000 }, (_, i) => i / 50);

	it('is at most two points a pixel, and never loses a spike of one sample', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 99_999 }), fc.integer({ min: 10, max: 900 }), (at, pixels) => {
				const values = new Float64Array(timeS.length).fill(50);
				values[at] = 140;
				const line = decimate(timeS, values, 0, 2000, pixels);
				expect(line.x.length).toBeLessThanOrEqual(2 * pixels);
				expect(Math.max(...line.y)).toBe(140);
				expect(line.x[line.y.indexOf(140)]).toBe(timeS[at]);
			}),
			{ numRuns: 40 }
		);
	});

	it('is every single sample when one looks close enough, with its neighbours outside', () => {
		const line = decimate(timeS, timeS, 10, 10.2, 300);
		expect(line.x[0]).toBeCloseTo(9.98, 9);
		expect(line.x.at(-1)).toBeCloseTo(10.22, 9);
		expect([...line.y]).toEqual([...line.x]);
	});

	it('is not drawn across a hole, and can be moved', () => {
		const holed = Float64Array.of(0, 0.1, 0.2, 5, 5.1, 5.2, 5.3, 5.4, 5.5, 5.6, 5.7, 5.8);
		const line = decimate(
			holed,
			holed.map(() => 1),
			0,
			6,
			100,
			10
		);
		expect(line.x[0]).toBe(10);
		expect([...line.y].filter(Number.isNaN)).toHaveLength(1);
	});
});

describe('two recordings over each other', () => {
	it('find each other by their speeds, wherever the second was begun', () => {
		const first = drive(3, 150);
		for (const late of [0, 12.5, 40]) {
			const from = first.timeS.findIndex((t) => t >= late);
			const part: Recording = {
				timeS: first.timeS.slice(from).map((t) => t - late),
				channels: new Map([...first.channels].map(([name, column]) => [name, column.slice(from)])),
				problems: []
			};
			expect(alignedBy(first, part, { by: 'speed' })).toBeCloseTo(late, 0);
		}
		expect(alignedBy(first, first, { by: 'mark', hereS: 20, thereS: 5 })).toBe(15);
	});
});

describe('conditions held against a recording', () => {
	const above = {
		name: 'fast',
		condition: {
			kind: 'held' as const,
			forS: 2,
			of: {
				kind: 'compare' as const,
				left: { kind: 'signal' as const, signal: 'vehicle' },
				is: 'above' as const,
				right: { kind: 'value' as const, value: 20 },
				hysteresis: 0
			}
		}
	};
	const ramp: Recording = {
		timeS: Float64Array.from({ length: 400 }, (_, i) => i / 20),
		channels: new Map([['vehicle', Float64Array.from({ length: 400 }, (_, i) => (i / 20) * 4)]]),
		problems: []
	};

	it('tells when they were met first, and for how long', () => {
		// 20 km/h are passed after 5 s, held for 2 s at 7 s; the recording ends at 19.95 s.
		const [met] = conditionsOver(ramp, [above]);
		expect(met?.firstS).toBeCloseTo(7.05, 1);
		expect(met?.metS).toBeCloseTo(19.95 - 7.05, 1);
		expect(met?.missing).toEqual([]);
	});

	it('names what the recording lacks, and takes no value for "not available"', () => {
		const other = {
			name: 'x',
			condition: {
				...above.condition,
				of: { ...above.condition.of, left: { kind: 'signal' as const, signal: 'yaw' } }
			}
		};
		expect(conditionsOver(ramp, [other])[0]).toMatchObject({ firstS: null, missing: ['yaw'] });
		const dark = { ...ramp, channels: new Map([['vehicle', ramp.timeS.map(() => 255)]]) };
		expect(conditionsOver(dark, [above])[0]?.firstS).toBeNull();
		// 655.35 kPa is a pressure.
		const pressed = { ...ramp, channels: new Map([['brake_pressure', ramp.timeS.map(() => 655.35)]]) };
		const held = {
			...above.condition,
			of: { ...above.condition.of, left: { kind: 'signal' as const, signal: 'brake_pressure' } }
		};
		expect(conditionsOver(pressed, [{ name: 'braked', condition: held }])[0]?.firstS).toBeCloseTo(2, 9);
	});
});

describe('what else the recording tells', () => {
	const notes = (recording: Recording) => analyseLive(recording).notes.map(({ text }) => text);

	it('is nothing of a sound one', () => {
		expect(notes(drive(11))).toEqual([]);
	});

	it('a steering angle off its centre, a yaw rate off its zero', () => {
		expect(notes(withChannel(drive(11), 'steering', () => 8))).toEqual([
			expect.stringMatching(/steering angle reads 8°/)
		]);
		expect(notes(withChannel(drive(12), 'yaw', () => 2.5))).toEqual(
			expect.arrayContaining([expect.stringMatching(/yaw rate reads 2\.5/)])
		);
	});

	it('a unit that is wrong: asked, not guessed', () => {
		const mph = drive(11);
		for (const [name, column] of mph.channels)
			if (name !== 'vehicle')
				mph.channels.set(
					name,
					column.map((v) => v / 1.609344)
				);
		expect(notes(mph)).toEqual([expect.stringMatching(/mph taken for km\/h/)]);
		const fast = drive(11);
		for (const [name, column] of fast.channels)
			fast.channels.set(
				name,
				column.map((v) => v * 3.6)
			);
		expect(notes(fast)).toEqual(expect.arrayContaining([expect.stringMatching(/which no vehicle does/)]));
	});

	it('a supply that falls, a hole in time', () => {
		expect(notes(withChannel(drive(11), 'supply', (i) => (i === 500 ? 8.1 : 12.5)))).toEqual([
			expect.stringMatching(/8\.1 V/)
		]);
		const holed = drive(11);
		for (let i = 900; i < holed.timeS.length; i++) holed.timeS[i] = (holed.timeS[i] ?? 0) + 7;
		expect(notes(holed)).toEqual([expect.stringMatching(/a hole, 7\.\d s/)]);
	});
});

describe('ring or tyre', () => {
	it('a whole tooth more or less fits a ring, anything between a tyre', () => {
		expect(toothFit(47 / 46, 46)).toMatchObject({ teeth: 47 });
		expect(toothFit(44 / 46, 46)).toMatchObject({ teeth: 44 });
		expect(toothFit(1.033, 46)).toBeNull();
		expect(toothFit(1, 46)).toBeNull();
	});

	it('is told in words, and left open where the ring is not known', () => {
		const healthy = drive(21, 200);
		const odd = spoiled(healthy, 'rear_left', (kmh) => (kmh * 48) / 46);
		const text = (teeth: number | null) =>
			analyseLive(odd, { trackM: 1.5, wheelbaseM: 2.7, teeth }).findings.find(
				({ type }) => type === 'ratio-offset'
			)?.text;
		expect(text(46)).toMatch(/48 teeth for 46/);
		expect(text(null)).toMatch(/read the sidewall first/);
		expect(oddWheelSentence(1.11, 46)).toMatch(/look at the tyre|teeth for 46/);
	});
});

describe('what a rate can show', () => {
	it('an event shorter than the interval is seen as often as it covers it', () => {
		expect(chanceToSee(0.05, 20)).toBe(1);
		expect(chanceToSee(0.02, 20)).toBeCloseTo(0.4, 9);
		expect(chanceToSee(0.02, 20, 3)).toBeCloseTo(1 - 0.6 ** 3, 9);
		expect(chanceToSee(-1, 20)).toBe(0);
	});

	it('a missing tooth lasts two tooth periods', () => {
		// 46 teeth on 1.95 m at 6 km/h: a tooth every 25.4 ms.
		expect(missingToothS(46, 1.95, 6)).toBeCloseTo(2 * (1.95 / 46 / (6 / 3.6)), 9);
		expect(rateSentence(5)).toMatch(/200 ms.*oscilloscope/);
	});

	it('every value asked for makes all of them slower', () => {
		expect(expectedRateHz([])).toBe(0);
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 }), (a, b) => {
				expect(expectedRateHz([a + 1])).toBeLessThan(expectedRateHz([a]) + 1e-9);
				expect(expectedRateHz([a, b])).toBeLessThan(expectedRateHz([a + b]));
			})
		);
	});
});
