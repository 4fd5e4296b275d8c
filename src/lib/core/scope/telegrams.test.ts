import { describe, expect, it } from 'vitest';
import { decodeTelegram, encodeTelegram, type Telegram } from '../electrical/sensorTelegrams';
import { analyseChannel } from './analyseChannel';
import { saysWords } from './words';

const RATE_HZ = 200_000;
const [LOW_V, BIT_V, PULSE_V] = [0.7, 1.4, 2.8];
/** Half bits after the pulse and its pause, by hand: reserve 0, two of the maker's own 0, direction known 1, forwards 1, strength 5, odd → parity 0. */
const FORWARDS = '10 10 10 01 01 01 10 01 10';
const BACKWARDS = '10 10 10 01 10 01 10 01 01';

/** A line that rests low, with the half bits of one telegram after each tooth. */
function spoken(telegrams: readonly string[], hz: number, pulseV = PULSE_V): Float32Array {
	const volts = new Float32Array(Math.round(((telegrams.length + 1) / hz) * RATE_HZ)).fill(LOW_V);
	const put = (at: number, seconds: number, level: number) =>
		volts.fill(level, Math.round(at * RATE_HZ), Math.round((at + seconds) * RATE_HZ));
	for (const [k, halves] of telegrams.entries()) {
		const at = (k + 0.5) / hz;
		put(at, 50e-6, pulseV);
		for (const [n, half] of [...halves.replaceAll(' ', '')].entries())
			if (half === '1') put(at + 75e-6 + n * 25e-6, 25e-6, BIT_V);
	}
	return volts;
}

/** Pulses of set lengths, in µs, one a tooth. */
function pulsed(widthsUs: readonly number[], hz: number, rateHz = RATE_HZ): Float32Array {
	const volts = new Float32Array(Math.round(((widthsUs.length + 1) / hz) * rateHz)).fill(LOW_V);
	for (const [k, width] of widthsUs.entries()) {
		const at = (k + 0.5) / hz;
		volts.fill(BIT_V, Math.round(at * rateHz), Math.round((at + width * 1e-6) * rateHz));
	}
	return volts;
}

const many = <T>(n: number, one: T): T[] => Array.from({ length: n }, () => one);

describe('a telegram of nine bits', () => {
	it('says the same after it was sent, and nothing with one bit turned over', () => {
		for (let n = 0; n < 64; n++) {
			const telegram: Telegram = {
				weak: n % 2 === 1,
				directionKnown: n % 4 > 1,
				forwards: n % 4 === 3,
				strength: n >> 3
			};
			const bits = encodeTelegram(telegram);
			expect(decodeTelegram(bits)).toEqual(telegram);
			for (const at of bits.keys())
				expect(decodeTelegram(bits.map((bit, i) => (i === at ? !bit : bit)))).toBeNull();
		}
	});
});

describe('what a current-pulse sensor says', () => {
	it('is read off its bits: which way it turns, when that changes, how strong the field is', () => {
		const telegrams = [...many(180, FORWARDS), ...many(120, BACKWARDS)];
		const channel = analyseChannel('x', spoken(telegrams, 160), RATE_HZ, 0);
		expect(channel).toMatchObject({ kind: 'active', pulses: 300, findings: [], tooSlow: false });
		expect(channel.middleV).toBeCloseTo(BIT_V, 2);
		expect(channel.says).toMatchObject({ protocol: 'bits', read: 300, wrong: 0, weak: 0, strength: 5 });
		expect(channel.says?.direction).toMatchObject({ forwards: 180, backwards: 120 });
		expect(channel.says?.direction?.changesAt).toHaveLength(1);
		expect(channel.says?.direction?.changesAt[0]).toBeCloseTo(180.5 / 160, 3);
	});

	it('is not believed where its parity is odd', () => {
		const odd = BACKWARDS.replace(/01$/, '10');
		const telegrams = Array.from({ length: 200 }, (_, k) => (k % 10 === 4 ? odd : BACKWARDS));
		const { says } = analyseChannel('x', spoken(telegrams, 160), RATE_HZ, 0);
		expect(says).toMatchObject({ read: 180, wrong: 20 });
		expect(says && saysWords(says).join(' ')).toContain('20 of 200 of its messages cannot be read');
	});

	it('of a wheel that stands is that it stands, and no tooth', () => {
		const volts = spoken(many(8, FORWARDS), 1 / 0.15, BIT_V);
		const channel = analyseChannel('x', volts, RATE_HZ, 0);
		expect(channel).toMatchObject({ kind: 'flat', pulses: 0 });
		expect(channel.says).toMatchObject({ standing: 8, read: 8 });
		expect(channel.findings[0]?.text).toContain('did not turn');
	});
});

describe('what a pulse-width sensor says', () => {
	it('is read off the length of its pulses', () => {
		const widths = [...many(90, 180), ...many(60, 90)];
		const channel = analyseChannel('x', pulsed(widths, 200), RATE_HZ, 0);
		expect(channel.findings).toEqual([]);
		expect(channel.says).toMatchObject({ protocol: 'pulse-width', read: 150, weak: 0 });
		expect(channel.says?.direction).toMatchObject({ forwards: 90, backwards: 60 });
		expect(channel.says?.direction?.changesAt[0]).toBeCloseTo(90.5 / 200, 3);
	});

	it('is that its field is weak, and where to look', () => {
		const { says } = analyseChannel('x', pulsed(many(120, 45), 200), RATE_HZ, 0);
		expect(says).toMatchObject({ weak: 120, direction: null });
		expect(says && saysWords(says).join(' ')).toContain('look at the gap');
	});

	it('is no tooth while it stands, before it turns or all the time', () => {
		const standing = new Float32Array(RATE_HZ * 1.6).fill(LOW_V);
		for (const at of [0.1, 0.84, 1.58])
			standing.fill(BIT_V, Math.round(at * RATE_HZ), Math.round((at + 1.44e-3) * RATE_HZ));
		const still = analyseChannel('x', standing, RATE_HZ, 0);
		expect(still).toMatchObject({ kind: 'flat', pulses: 0, says: { protocol: 'pulse-width', standing: 3 } });
		const turning = pulsed(many(200, 180), 150);
		const both = new Float32Array(standing.length + turning.length);
		both.set(standing);
		both.set(turning, standing.length);
		const begins = analyseChannel('x', both, RATE_HZ, 0);
		expect(begins.pulses).toBe(200);
		expect(begins.says).toMatchObject({ standing: 3, direction: { forwards: 200, backwards: 0 } });
		expect(begins.findings).toEqual([]);
	});

	it('is not read into a plain sensor, whatever its speed', () => {
		for (const hz of [300, 700, 1000, 2500, 2778, 5500])
			for (const duty of [0.4, 0.5, 0.6]) {
				const widths = Array.from({ length: 400 }, () => (duty * 1e6) / hz);
				expect(analyseChannel('x', pulsed(widths, hz), RATE_HZ, 0).says).toBeNull();
			}
	});

	it('is not read where the capture is too slow for it', () => {
		expect(analyseChannel('x', pulsed(many(150, 90), 200, 20_000), 20_000, 0).says).toBeNull();
		expect(analyseChannel('x', pulsed(many(150, 180), 200, 50_000), 50_000, 0).says?.read).toBe(150);
	});
});
