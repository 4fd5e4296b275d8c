import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analyseLive } from './analyse';
import { readHeader } from './header';
import { readRecording } from './readRecording';
import type { Recording } from './recording';

const FOUR = ['front_left', 'front_right', 'rear_left', 'rear_right'];

/** A drive as columns: start, 60 km/h with a bend, stop. `change` spoils one sample of one wheel. */
function drive(
	change: (wheel: string, kmh: number, t: number) => number = (_, kmh) => kmh,
	rateHz = 20,
	wheels = FOUR
): Recording {
	const rows = 60 * rateHz;
	const timeS = Float64Array.from({ length: rows }, (_, i) => i / rateHz);
	const speed = (t: number) => Math.max(0, Math.min(60, t * 6, (58 - t) * 6));
	// A bend from 25 to 32 s: left wheels slower, right ones faster.
	const turn = (t: number) => (t > 25 && t < 32 ? 0.05 : 0);
	const noise = (i: number, k: number) => 0.04 * Math.sin(i * 12.9898 + k * 78.233);
	return {
		timeS,
		channels: new Map(
			wheels.map((wheel, k) => [
				wheel,
				timeS.map((t, i) => {
					const kmh = speed(t) * (1 + (wheel.endsWith('left') ? -1 : 1) * turn(t));
					return change(wheel, kmh < 0.5 ? 0 : kmh + noise(i, k), t);
				})
			])
		),
		problems: []
	};
}
const one = (recording: Recording) => {
	const { findings } = analyseLive(recording);
	expect(findings.map(({ text }) => text)).toHaveLength(1);
	return findings[0];
};
const spoil = (wheel: string, how: (kmh: number, t: number) => number) =>
	drive((name, kmh, t) => (name === wheel ? how(kmh, t) : kmh));
const between = (t: number, from: number, to: number) => t >= from - 1e-9 && t < to - 1e-9;

describe('the analysis of live data', () => {
	it('finds nothing in a clean drive with a bend, at any usual rate, on four wheels and on a trailer’s', () => {
		for (const rateHz of [5, 10, 20, 50]) expect(analyseLive(drive(undefined, rateHz)).findings).toEqual([]);
		const trailer = ['axle1_left', 'axle1_right', 'axle2_left', 'axle2_right', 'axle3_left', 'axle3_right'];
		expect(analyseLive(drive(undefined, 20, trailer)).findings).toEqual([]);
	});

	it('a wheel that never reads is stuck at zero; one at 255 tells "not available"', () => {
		expect(one(spoil('rear_left', () => 0))).toMatchObject({
			type: 'stuck-zero',
			channel: 'rear_left',
			value: 0
		});
		expect(one(spoil('rear_left', () => 255))).toMatchObject({
			type: 'stuck-invalid',
			channel: 'rear_left',
			startS: 0
		});
	});

	it('counts dropouts, with the first start and the last end', () => {
		const dropped = one(
			spoil('front_right', (kmh, t) => (between(t, 20, 20.2) || between(t, 40, 40.3) ? 0 : kmh))
		);
		expect(dropped).toMatchObject({ type: 'dropout', channel: 'front_right', count: 2, value: 0 });
		expect(dropped?.startS).toBeCloseTo(20, 6);
		expect(dropped?.endS).toBeCloseTo(40.25, 6);
	});

	it('a jump above what a wheel can do is a spike', () => {
		expect(one(spoil('front_left', (kmh, t) => (between(t, 35, 35.1) ? 140 : kmh)))).toMatchObject({
			type: 'spike',
			count: 1,
			value: 140
		});
	});

	it('jumps both ways are one erratic signal', () => {
		const wild = spoil('rear_right', (kmh, t) => {
			const at = Math.floor(t * 20) % 40;
			if (!between(t, 15, 45)) return kmh;
			return at < 2 ? 0 : at >= 20 && at < 22 ? kmh + 60 : kmh;
		});
		expect(one(wild)).toMatchObject({ type: 'erratic', channel: 'rear_right' });
	});

	it('late pickup and early loss tell the speed', () => {
		const weak = analyseLive(spoil('front_left', (kmh) => (kmh < 14 ? 0 : kmh))).findings;
		expect(weak.map(({ type }) => type)).toEqual(['late-pickup', 'early-loss']);
		for (const { value } of weak) expect(Math.abs(value - 14)).toBeLessThan(1.5);
	});

	it('a constant ratio: one wheel, an axle, a side', () => {
		expect(one(spoil('rear_left', (kmh) => kmh * 1.065))).toMatchObject({
			type: 'ratio-offset',
			channel: 'rear_left',
			value: expect.closeTo(1.065, 3)
		});
		expect(one(drive((name, kmh) => (name.startsWith('front') ? kmh * 1.04 : kmh)))).toMatchObject({
			channel: 'front',
			value: expect.closeTo(1.04, 3)
		});
		expect(one(drive((name, kmh) => (name.endsWith('right') ? kmh * 1.03 : kmh)))).toMatchObject({
			channel: 'right',
			value: expect.closeTo(1.03, 3)
		});
	});

	it('an offset is found at any ratio that matters, and never below what wear makes', () => {
		fc.assert(
			fc.property(
				fc.constantFrom(...FOUR),
				fc.double({ min: 0.85, max: 1.15, noNaN: true }),
				(wheel, ratio) => {
					const { findings } = analyseLive(spoil(wheel, (kmh) => kmh * ratio));
					if (Math.abs(ratio - 1) < 0.015) expect(findings).toEqual([]);
					if (Math.abs(ratio - 1) > 0.022) {
						expect(findings).toHaveLength(1);
						expect(findings[0]).toMatchObject({ type: 'ratio-offset', channel: wheel });
						expect(findings[0]?.value).toBeCloseTo(ratio, 2);
					}
				}
			),
			{ numRuns: 60 }
		);
	});

	it('honest slip under braking and drive is no finding', () => {
		const slips = drive((name, kmh, t) => {
			if (name.startsWith('rear') && t < 10) return kmh * 1.08;
			return t > 48 && kmh > 5 ? kmh * (name === 'front_left' ? 0.8 : 0.92) : kmh;
		});
		expect(analyseLive(slips).findings).toEqual([]);
	});

	it('all wheels gone at once is said of the supply, not of four sensors', () => {
		const { findings, verdict, common } = analyseLive(drive((_, kmh, t) => (between(t, 38, 38.5) ? 0 : kmh)));
		expect(findings).toEqual([]);
		expect(common).toMatchObject([{ channels: FOUR, timesS: [expect.closeTo(38, 6)] }]);
		expect(verdict).toMatch(/All 4 wheels fall at once/);
	});

	it('wheels turned one by one on stands, or one axle in gear, are no dead sensors', () => {
		const spun = drive((wheel, _, t) =>
			between(t, 10 * FOUR.indexOf(wheel), 10 * FOUR.indexOf(wheel) + 8) ? 9 : 0
		);
		expect(analyseLive(spun).findings).toEqual([]);
		expect(analyseLive(spun).verdict).toMatch(/one by one/);
		const alone = drive((wheel, _, t) =>
			wheel === 'front_left' && t > 5 ? 12 : wheel === 'rear_left' ? 655.35 : 0
		);
		expect(one(alone)).toMatchObject({ type: 'stuck-invalid', channel: 'rear_left' });
		const inGear = drive((wheel, kmh) => (wheel.startsWith('rear') ? Math.min(7, kmh) : 0));
		expect(analyseLive(inGear).findings).toEqual([]);
		expect(analyseLive(inGear).verdict).toMatch(/run on stands/);
		const bad = drive((wheel, kmh, t) =>
			!wheel.startsWith('rear') || (wheel === 'rear_left' && between(t, 30, 30.5)) ? 0 : Math.min(9, kmh)
		);
		expect(one(bad)).toMatchObject({ type: 'dropout', channel: 'rear_left' });
	});

	it('says what the rate can show', () => {
		const slow = analyseLive(drive(undefined, 5));
		expect(slow.shortestVisibleS).toBeCloseTo(0.2, 9);
		expect(slow.rateHz).toBeCloseTo(5, 9);
		expect(slow.verdict).toMatch(/oscilloscope/);
	});
});

describe('a header', () => {
	it.each([
		['front_left_kmh', 'front_left', 1],
		['FL Wheel Speed [mph]', 'front_left', 1.609344],
		['Rear right (m/s)', 'rear_right', 3.6],
		['LR_kmh', 'rear_left', 1],
		['axle2_right_kmh', 'axle2_right', 1],
		['vehicle_kmh', 'vehicle', 1],
		['Steering angle (deg)', 'steering', 1],
		['yaw_degps', 'yaw', 1],
		['lateral_g', 'lateral', 1],
		['brake_switch', 'brake_switch', 1],
		['supply_v', 'supply', 1],
		['time_ms', 'time', 0.001]
	])('%s is %s', (header, channel, factor) => {
		expect(readHeader(header)).toMatchObject({ channel, factor });
	});

	it('with a unit nobody knows is refused', () => {
		expect(readHeader('front_left [furlongs]')).toBeNull();
	});
});

describe('a file of live data', () => {
	const read = (text: string) => {
		const result = readRecording(text);
		if (!result.ok) throw new Error(`${result.error.line}: ${result.error.reason}`);
		return result.value;
	};
	const columns = (text: string) => {
		const { timeS, channels } = read(text);
		return { timeS: [...timeS], left: [...(channels.get('front_left') ?? [])] };
	};
	const WANTED = { timeS: [0, 0.5, 1], left: [10.5, 11, 12] };

	it.each([
		['plain', 'time_s,front_left_kmh\n0,10.5\n0.5,11\n1,12\n'],
		['semicolons and decimal commas', 'time_s;front_left_kmh\n0;10,5\n0,5;11\n1;12'],
		['a mark and other line ends', '\uFEFFtime_s,front_left_kmh\r\n0,10.5\r\n0.5,11\r\n1,12\r\n\r\n'],
		['milliseconds', 'time_ms,front_left_kmh\n0,10.5\n500,11\n1000,12'],
		['a clock', 'time,front_left_kmh\n09:59:59.500,10.5\n10:00:00.000,11\n10:00:00.500,12'],
		['an epoch', 'timestamp,front_left_kmh\n1764000000.0,10.5\n1764000000.5,11\n1764000001.0,12'],
		['metres a second', 'time_s,front_left [m/s]\n0,2.9166666667\n0.5,3.0555555556\n1,3.3333333333']
	])('%s', (_, text) => {
		const { timeS, left } = columns(text);
		expect(timeS.map((t) => Number(t.toFixed(6)))).toEqual(WANTED.timeS);
		expect(left.map((v) => Number(v.toFixed(6)))).toEqual(WANTED.left);
	});

	it('leaves out rows that stand twice or run backwards, and says which', () => {
		const rows = Array.from({ length: 60 }, (_, i) => `${i},50`);
		rows.splice(10, 0, rows[9] ?? '');
		rows.splice(30, 0, '3,50');
		const { timeS, problems } = read(`time_s,front_left_kmh\n${rows.join('\n')}`);
		expect(timeS).toHaveLength(60);
		expect(problems).toEqual([
			{ line: 12, reason: 'the row stands twice' },
			{ line: 32, reason: 'time runs backwards here' }
		]);
	});

	it('tells of a row that was cut off, and keeps what it holds', () => {
		const { timeS, problems } = read('time_s,front_left_kmh,front_right_kmh\n0,1,1\n1,2,2\n2,3');
		expect(timeS).toHaveLength(3);
		expect(problems).toEqual([{ line: 4, reason: 'the row has 2 of 3 columns: cut off?' }]);
	});

	it('an empty cell is nothing, not zero', () => {
		expect(columns('time_s,front_left_kmh\n0,10\n1,\n2,NaN\n3,12').left).toEqual([10, NaN, NaN, 12]);
	});

	it.each([
		['', 1, /empty/],
		['a\0b', 1, /no text/],
		['0,1\n1,2', 1, /header/],
		['speed,front_left_kmh\n1,2\n2,3', 1, /time in the first column/],
		['time_s,front_left [ells]\n0,1\n1,2', 1, /unit/],
		['time_s,front_left_kmh,FL_kmh\n0,1,1\n1,2,2', 1, /same channel/],
		['time_s,oil_temp\n0,1\n1,2', 1, /no wheel/],
		['time_s,front_left_kmh\n', 2, /two rows/],
		['time_s,front_left_kmh\n5,1\n4,1\n3,1\n2,1\n6,1', 3, /backwards again/]
	])('%j is refused with line and reason', (text, line, reason) => {
		const result = readRecording(text);
		if (result.ok) throw new Error('taken');
		expect(result.error.line).toBe(line);
		expect(result.error.reason).toMatch(reason);
	});

	it('anything at all comes back', () => {
		fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 80 }), (text) => void readRecording(text)));
	});
});
