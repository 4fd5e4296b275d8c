import { describe, expect, it } from 'vitest';
import { CaptureReader, readCapture, writeCapture } from './captureRows';
import { readWav } from './readWav';
import { captureOf, makeSignal } from './signals.fixture';
import { voltageColumn } from './voltageColumn';

const read = (text: string | Uint8Array) => {
	const capture = readCapture(text);
	if (!capture.ok) throw new Error(JSON.stringify(capture.error));
	return capture.value;
};
const rows = (...lines: string[]) => `time_s,front_left_v\n${lines.join('\n')}\n`;

describe('a capture in CSV', () => {
	it('comes back as it was written', () => {
		const volts = makeSignal({
			kind: 'passive',
			rateHz: 25_000,
			durationS: 0.2,
			teeth: 48,
			hz: 200,
			snrDb: 20
		});
		const { rateHz, startS, channels, problems } = read(
			writeCapture({ ...captureOf(25_000, { rear_left: volts }), startS: 3.25 })
		);
		expect(rateHz).toBeCloseTo(25_000, 3);
		expect(startS).toBe(3.25);
		expect(problems).toEqual([]);
		expect(channels[0]?.name).toBe('rear_left');
		expect(channels[0]?.volts).toHaveLength(5000);
		for (const [i, value] of volts.entries()) expect(channels[0]?.volts[i]).toBeCloseTo(value, 4);
	});

	it('is the same in pieces of any size', () => {
		const volts = makeSignal({ kind: 'active', rateHz: 25_000, durationS: 1, teeth: 48, hz: 200 });
		const bytes = new TextEncoder().encode(writeCapture(captureOf(25_000, { front_left: volts })));
		for (const size of [97, 70_001, 200_000]) {
			const reader = new CaptureReader();
			for (let at = 0; at < bytes.length; at += size) reader.push(bytes.slice(at, at + size));
			const whole = reader.end();
			expect(whole.ok && whole.value.channels[0]?.volts.length).toBe(volts.length);
			expect(whole.ok && Array.from(whole.value.channels[0]?.volts.slice(-50) ?? [])).toEqual(
				Array.from(volts.slice(-50))
			);
		}
	});

	it('takes milliseconds, millivolts, semicolons, decimal commas and a unit row', () => {
		const { rateHz, channels } = read(
			'Zeit;Front left;CH2\n'.replace('Zeit', 'Time') + 'ms;mV;V\n0,0;820;1,5\n0,1;1610;1,25\n0,2;820;1,5\n'
		);
		expect(rateHz).toBeCloseTo(10_000, 3);
		expect(channels.map(({ name }) => name)).toEqual(['front_left', 'ch2']);
		expect(channels[0]?.volts[1]).toBeCloseTo(1.61, 6);
		expect(channels[1]?.volts[1]).toBeCloseTo(1.25, 6);
	});

	it.each([
		['front_left_v', 'front_left', 1],
		['Front left [mV]', 'front_left', 0.001],
		['Channel A', 'channel_a', 1],
		['channel_g (V)', 'channel_g', 1],
		['rear right voltage', 'rear_right', 1],
		['CH1', 'ch1', 1]
	])('calls %j %s', (header, name, factor) => {
		expect(voltageColumn(header, '')).toEqual({ name, factor });
	});

	it('leaves out what is in no volts and tells so, and takes a unit from the row below', () => {
		const { channels, problems } = read('time_s,ch1,current [A],speed_kmh\n0,1,2,3\n1,2,3,4\n');
		expect(channels.map(({ name }) => name)).toEqual(['ch1']);
		expect(problems.map(({ reason }) => reason)).toEqual([
			'"current [A]" is in a, no voltage: left out',
			'"speed_kmh" is in kmh, no voltage: left out'
		]);
		expect(voltageColumn('ch1', 'mV')).toEqual({ name: 'ch1', factor: 0.001 });
		expect(voltageColumn('ch1', 'A')).toEqual({ notVolts: 'a' });
	});

	it('fills a hole with the value before it and tells the line', () => {
		const lines = Array.from({ length: 100 }, (_, i) => `${(i / 1000).toFixed(3)},${i % 2}`).filter(
			(_, i) => i < 40 || i >= 60
		);
		const { channels, problems } = read(rows(...lines));
		expect(channels[0]?.volts).toHaveLength(100);
		expect(problems).toEqual([{ line: 42, reason: '20 rows are missing before this one' }]);
	});

	it.each([
		['', 1, 'empty'],
		['time_s\n0\n1\n', 1, 'at least one channel'],
		['1,2\n3,4\n', 1, 'this row holds numbers'],
		['a,b\n1,2\n', 1, 'expected time in the first column'],
		[rows('0,1'), 2, 'at least two rows'],
		['time_s,front_left_kmh\n0,1\n1,2\n', 1, 'is in kmh, no voltage: expected volts'],
		['time_s,front_left_v,FL [V]\n0,1,2\n1,2,3\n', 1, 'same channel'],
		[rows(...Array.from({ length: 30 }, (_, i) => `${i / 1000},1`), '500,1'), 32, 'more than a minute']
	])('refuses %j, naming the line', (text, line, reason) => {
		const capture = readCapture(text);
		expect(capture.ok).toBe(false);
		if (capture.ok) return;
		expect(capture.error.line).toBe(line);
		expect(capture.error.reason).toContain(reason);
	});

	it('tells of words among the numbers and of time that runs backwards, and reads on', () => {
		const { channels, problems } = read(rows('0,1', '0.001,bad', 'x,3', '0.002,4', '0.0015,5', '0.003,6'));
		expect(Array.from(channels[0]?.volts ?? [])).toEqual([1, 1, 4, 6]);
		expect(problems.map(({ line, reason }) => `${line} ${reason}`)).toEqual([
			'4 "x" is no time',
			'3 no number for front_left: the value before it is kept',
			'6 time runs backwards here'
		]);
	});
});

describe('a capture in a sound file', () => {
	const wav = (code: number, bits: number, write: (view: DataView, at: number) => void) => {
		const count = 6;
		const bytes = new Uint8Array(44 + (count * bits) / 8);
		const view = new DataView(bytes.buffer);
		const word = (at: number, text: string) => bytes.set(new TextEncoder().encode(text), at);
		word(0, 'RIFF');
		word(8, 'WAVE');
		word(12, 'fmt ');
		view.setUint32(16, 16, true);
		view.setUint16(20, code, true);
		view.setUint16(22, 2, true);
		view.setUint32(24, 48_000, true);
		view.setUint16(34, bits, true);
		word(36, 'data');
		view.setUint32(40, (count * bits) / 8, true);
		for (let i = 0; i < count; i++) write(view, 44 + (i * bits) / 8);
		return bytes;
	};

	it('has its rate, its channels, and volts by the full scale that is told', () => {
		const half = wav(1, 16, (view, at) => view.setInt16(at, -16384, true));
		const capture = readWav(half, 20);
		expect(capture.ok && capture.value.rateHz).toBe(48_000);
		expect(capture.ok && capture.value.channels.map(({ name, volts }) => [name, ...volts])).toEqual([
			['channel_1', -10, -10, -10],
			['channel_2', -10, -10, -10]
		]);
		const others: [number, number, (view: DataView, at: number) => void][] = [
			[1, 8, (view, at) => view.setUint8(at, 64)],
			[1, 24, (view, at) => view.setInt8(at + 2, -64)],
			[1, 32, (view, at) => view.setInt32(at, -(2 ** 30), true)],
			[3, 32, (view, at) => view.setFloat32(at, -0.5, true)]
		];
		for (const [code, bits, write] of others) {
			const other = readWav(wav(code, bits, write), 20);
			expect(other.ok && other.value.channels[0]?.volts[0], `${bits} bits`).toBe(-10);
		}
	});

	it('refuses what is none, is cut or is compressed, naming the byte', () => {
		const good = wav(1, 16, () => undefined);
		expect(readWav(new Uint8Array(4)).ok).toBe(false);
		for (let cut = 0; cut < good.length; cut++) expect(() => readWav(good.slice(0, cut))).not.toThrow();
		const packed = readWav(wav(85, 16, () => undefined));
		expect(packed.ok ? '' : packed.error).toContain('format 85');
	});
});
