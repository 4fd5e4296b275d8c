import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeCapture, encodeCapture } from './captureChunk';
import { pyramidOf, spanLine } from './pyramid';
import { captureOf, makeSignal, normalNumbers } from './signals.fixture';
import { runningMean, runningMedian } from './smooth';

const noise = (length: number, seed = 1) => {
	const normal = normalNumbers(seed);
	return Float32Array.from({ length }, () => normal());
};

describe('drawing from a pyramid', () => {
	const volts = noise(200_000);
	const pyramid = pyramidOf(volts);

	it('never loses the lowest or the highest of any span', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 199_000 }),
				fc.integer({ min: 10, max: 200_000 }),
				(from, span) => {
					const to = Math.min(volts.length, from + span);
					const line = spanLine(volts, pyramid, from, to, 300);
					const inside = volts.subarray(from, to);
					const min = (list: Float32Array) => list.reduce((a, b) => Math.min(a, b), Infinity);
					const max = (list: Float32Array) => list.reduce((a, b) => Math.max(a, b), -Infinity);
					expect(min(line.volts)).toBeLessThanOrEqual(min(inside));
					expect(max(line.volts)).toBeGreaterThanOrEqual(max(inside));
					expect(line.volts.length).toBeLessThanOrEqual(602);
				}
			),
			{ numRuns: 60 }
		);
	});

	it('shows a spike of one sample at the pixel it belongs to', () => {
		const flat = new Float32Array(1_000_000);
		flat[777_777] = 5;
		const line = spanLine(flat, pyramidOf(flat), 0, flat.length, 500);
		const at = line.volts.indexOf(5);
		expect(Math.abs((line.at[at] ?? 0) - 777_777)).toBeLessThan(2_001);
		expect(line.volts.filter((value) => value !== 0)).toHaveLength(1);
	});

	it('gives the samples themselves where there is room for each, and nothing outside', () => {
		const line = spanLine(volts, pyramid, 1000, 1200, 400);
		expect(Array.from(line.at)).toEqual(Array.from({ length: 202 }, (_, i) => 999 + i));
		expect(line.volts[1]).toBe(volts[1000]);
		expect(spanLine(volts, pyramid, 300_000, 300_100, 400).volts).toHaveLength(0);
	});
});

describe('filters for the picture', () => {
	it('a running mean takes white noise down by the root of its width and leaves a ramp alone', () => {
		const rms = (list: Float32Array) => Math.sqrt(list.reduce((sum, v) => sum + v * v, 0) / list.length);
		expect(rms(runningMean(noise(50_000), 25))).toBeCloseTo(0.2, 1);
		const ramp = Float32Array.from({ length: 100 }, (_, i) => i);
		expect(Array.from(runningMean(ramp, 9).subarray(4, 96))).toEqual(Array.from(ramp.subarray(4, 96)));
	});

	it('a running median takes a spike away and leaves an edge where it is', () => {
		const step = Float32Array.from({ length: 60 }, (_, i) => (i < 30 ? 0 : 1));
		const spiked = step.slice();
		spiked[10] = 9;
		spiked[11] = -9;
		expect(Array.from(runningMedian(spiked, 7))).toEqual(Array.from(step));
	});

	it('the running median is the median of each window, by sorting', () => {
		const volts = noise(200, 5);
		const median = runningMedian(volts, 11);
		for (let i = 5; i < 195; i++) expect(median[i]).toBe(volts.slice(i - 5, i + 6).sort()[5]);
	});
});

describe('a capture as it is kept', () => {
	const capture = captureOf(50_000, {
		rear_left: makeSignal({ kind: 'passive', rateHz: 50_000, durationS: 1, teeth: 48, hz: 200, snrDb: 30 }),
		rear_right: new Float32Array(50_000).fill(2.5)
	});

	it('comes back within half of a step of sixteen bits, in far fewer bytes', () => {
		const bytes = encodeCapture({ ...capture, startS: 2 });
		const back = decodeCapture(bytes);
		if (!back.ok) throw new Error(back.error);
		expect(back.value).toMatchObject({ rateHz: 50_000, startS: 2 });
		const [left, right] = back.value.channels;
		const span = 5.5;
		for (let i = 0; i < 50_000; i += 7)
			expect(Math.abs((left?.volts[i] ?? 0) - (capture.channels[0]?.volts[i] ?? 0))).toBeLessThan(
				span / 65_535
			);
		expect(right?.volts[1234]).toBe(2.5);
		expect(bytes.length).toBeLessThan(0.4 * 4 * 2 * 50_000);
	});

	it('is refused with its place where it is damaged', () => {
		const bytes = encodeCapture(capture);
		expect(decodeCapture(bytes.slice(0, 3)).ok).toBe(false);
		for (const at of [0, 5, 12, 40]) {
			const broken = bytes.slice();
			broken[at] = (broken[at] ?? 0) ^ 0xff;
			expect(decodeCapture(broken).ok, `byte ${at}`).toBe(false);
		}
		const cut = decodeCapture(bytes.slice(0, bytes.length >> 1));
		expect(cut.ok).toBe(false);
	});
});
