import { describe, expect, it } from 'vitest';
import { guessColumns, headerKey, mappingOf } from './columnMapping';
import { csvShape } from './csvShape';
import { readRecording } from './readRecording';
import { writeCsv } from './writeCsv';
import { framePieces, readPieces, splitPieces } from './pieces';
import { encodeChunk } from './chunk';

const shape = (text: string) => {
	const found = csvShape(new TextEncoder().encode(text));
	if (!found.ok) throw new Error(found.error.reason);
	return found.value;
};
const read = (text: string) => {
	const found = readRecording(text);
	if (!found.ok) throw new Error(`${found.error.line}: ${found.error.reason}`);
	return found.value;
};
const left = (text: string) => [...(read(text).channels.get('front_left') ?? [])];

describe('how a file is written', () => {
	it('is seen through notes above the header and units below it', () => {
		const text = 'Recorded in the yard\n\nTime;Front left;Front right\ns;m/s;m/s\n0;10;10\n1;20;20\n';
		expect(shape(text)).toMatchObject({
			delimiter: ';',
			headerLine: 3,
			units: ['s', 'm/s', 'm/s'],
			firstLine: 5
		});
		expect(left(text)).toEqual([36, 72]);
	});

	it.each([
		['quotes', '"time_s","front_left_kmh"\n"0","10.5"\n"1","11"\n', [10.5, 11]],
		['quoted decimal commas', 'time_s,front_left_kmh\n"0,0","10,5"\n"0,5","11,25"\n', [10.5, 11.25]],
		['exponents and signs', 'time_s,front_left_kmh\n0,1.05e1\n1,+11\n', [10.5, 11]],
		['carriage returns alone', 'time_s,front_left_kmh\r0,1\r1,2\r', [1, 2]],
		['tabs', 'time_s\tfront_left_kmh\n0\t1\n1\t2', [1, 2]],
		['blanks about the numbers', 'time_s, front_left_kmh\n 0 , 1.5 \n 1 , 2.5 \n', [1.5, 2.5]],
		[
			'more digits than a double holds',
			'time_s,front_left_kmh\n0,1.12345678901234567\n1,2\n',
			[1.1234567890123457, 2]
		]
	])('%s', (_, text, wanted) => {
		expect(left(text)).toEqual(wanted);
	});

	it('time as a date, in milliseconds since 1970, over midnight', () => {
		const times = (rows: string[]) => [
			...read(`time,front_left_kmh\n${rows.map((t, i) => `${t},${i}`).join('\n')}`).timeS
		];
		expect(times(['2026-02-28T23:59:59.5Z', '2026-03-01T00:00:00.5Z'])).toEqual([0, 1]);
		expect(times(['1764000000000', '1764000000250'])).toEqual([0, 0.25]);
		expect(times(['23:59:59.900', '00:00:00.100']).map((t) => Number(t.toFixed(6)))).toEqual([0, 0.2]);
	});

	it('a clock too coarse for its rows is spread evenly', () => {
		const rows = Array.from(
			{ length: 40 },
			(_, i) => `10:00:${String(Math.floor(i / 10)).padStart(2, '0')},${i}`
		);
		const { timeS } = read(`time,front_left_kmh\n${rows.join('\n')}`);
		expect(timeS).toHaveLength(40);
		expect(timeS[5]).toBeCloseTo(0.5, 9);
		expect(timeS[39]).toBeCloseTo(3.9, 9);
	});

	it('one endless line is refused at once', () => {
		const line = csvShape(new Uint8Array(50_000_000).fill(0x31));
		expect(line).toMatchObject({
			ok: false,
			error: { line: 1, reason: expect.stringMatching(/first line is longer/) }
		});
	});
});

describe('what the columns are', () => {
	it('is asked where a wheel has no unit, a unit is unknown or two look alike', () => {
		const guesses = guessColumns(
			shape('stamp,LF,FR_kmh,front_right [km/h],oil [pints]\n0,1,1,1,1\n1,2,2,2,2')
		);
		expect(guesses.map(({ as }) => as)).toEqual(['time', 'front_left', 'front_right', null, null]);
		expect(guesses.map(({ question }) => question !== null)).toEqual([false, true, false, true, true]);
	});

	it('an odd name, a name that stands twice and the sixty-fifth column are left out without a word', () => {
		const guesses = guessColumns(shape('time_s,front_left_kmh,°,status,status\n0,1,1,1,1\n1,2,2,2,2'));
		expect(guesses.map(({ as }) => as)).toEqual(['time', 'front_left', null, 'status', null]);
		const many = Array.from({ length: 80 }, (_, i) => `c${i}`);
		const wide = [['time_s', ...many, 'rear_left_kmh'], Array(82).fill('0'), Array(82).fill('1')];
		const mapping = mappingOf(guessColumns(shape(wide.map((row) => row.join(',')).join('\n'))));
		expect(mapping?.channels).toHaveLength(64);
		expect(mapping?.channels.at(-1)?.channel).toBe('rear_left');
	});

	it('is not asked where all is clear, and a mapping reads any column as any signal', () => {
		const text = 'when,a,b\n0,10,1\n1,20,2\n';
		const clear = guessColumns(shape('time_s,front_left_kmh,brake_switch\n0,1,0\n1,2,1'));
		expect(clear.every(({ question }) => question === null)).toBe(true);
		expect(mappingOf(guessColumns(shape(text)))).toBeNull();
		const told = readRecording(text, {
			time: { column: 0, factor: 0.001 },
			channels: [{ column: 2, channel: 'rear_left', factor: 3.6 }]
		});
		expect(told.ok && [...told.value.timeS]).toEqual([0, 0.001]);
		expect(told.ok && [...told.value.channels]).toEqual([['rear_left', Float64Array.of(3.6, 7.2)]]);
	});

	it('is remembered by the header, whatever its capitals', () => {
		expect(headerKey(shape('Time_s,FL\n0,1\n1,2'))).toBe(headerKey(shape('time_s,fl\n5,6\n7,8')));
		expect(headerKey(shape('time_s,fl\n0,1\n1,2'))).not.toBe(headerKey(shape('time_s,fr\n0,1\n1,2')));
	});
});

describe('out again', () => {
	it('as CSV it reads back as the same', () => {
		const first = read(
			'time_s,front_left_kmh,steering_deg,brake_switch\n0,10.25,-3,0\n0.05,,4,1\n0.1,11,5,1'
		);
		const again = read(writeCsv(first));
		expect(again).toEqual(first);
	});

	it('as pieces it is put together again; a cut body is refused', () => {
		const { timeS, channels } = read('time_s,front_left_kmh\n0,1\n1,2');
		const body = framePieces([encodeChunk({ timeS, channels }), encodeChunk({ timeS, channels })]);
		const whole = readPieces(body);
		expect(whole.ok && whole.value.timeS).toHaveLength(4);
		expect(readPieces(body.slice(0, body.length - 1))).toMatchObject({ ok: false, error: /cut/ });
		expect(splitPieces(Uint8Array.of(1, 2))).toMatchObject({ ok: false });
		expect(readPieces(new Uint8Array())).toMatchObject({ ok: false, error: /no samples/ });
	});
});
