import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { encodeDiagnosticMessage } from '../codes/diagnosticMessage';
import { BusAnalysis } from './analyseLog';
import { parsePair } from './diagnosticPair';
import { analyse, announced, LogWriter, segmented } from './frames.fixture';

const CODES = '59 02 FF 40 35 14 2F C1 21 87 AF C4 15 81 28';
const reasons = (analysis: BusAnalysis) => analysis.problems.map((p) => `${p.id} ${p.reason}`);

describe('requests and answers', () => {
	it('pairs a request with its answer in segments and gathers the codes with their status', () => {
		const log = new LogWriter().frame('7E0', '03 19 02 FF').message('7E8', '7E0', CODES);
		const analysis = analyse(log.text);
		expect([...analysis.exchanges]).toEqual([
			{
				timeS: 0,
				requestId: '7E0',
				responseId: '7E8',
				request: '1902FF',
				response: CODES.replaceAll(' ', ''),
				service: 'read code information: codes by status',
				negative: null,
				waits: 0
			}
		]);
		expect(analysis.modules).toEqual([
			{
				requestId: '7E0',
				responseId: '7E8',
				codes: [
					{ code: 'C0035', failureType: '14', status: 0x2f },
					{ code: 'U0121', failureType: '87', status: 0xaf },
					{ code: 'U0415', failureType: '81', status: 0x28 }
				]
			}
		]);
		expect(analysis.problems).toEqual([]);
		expect(analysis.frames).toBe(5);
		expect(analysis.durationS).toBe(0.004);
	});

	it('a long request is put together as well as a long answer', () => {
		const write = '2E F1 90 ' + '41 '.repeat(17);
		const log = new LogWriter().message('7E0', '7E8', write).frame('7E8', '03 6E F1 90');
		const [exchange] = analyse(log.text).exchanges;
		expect(exchange?.request).toBe(write.replaceAll(' ', ''));
		expect(exchange?.response).toBe('6EF190');
	});

	it('"still working" is not the answer: what follows it is', () => {
		const log = new LogWriter()
			.frame('7E0', '04 31 01 02 03')
			.frame('7E8', '03 7F 31 78')
			.frame('7E8', '03 7F 31 78', 4)
			.frame('7E8', '05 71 01 02 03 00', 4);
		const [exchange] = analyse(log.text).exchanges;
		expect(exchange).toMatchObject({ response: '7101020300', negative: null, waits: 2 });
		const endless = new LogWriter().frame('7E0', '04 31 01 02 03').frame('7E8', '03 7F 31 78');
		expect([...analyse(endless.text).exchanges][0]).toMatchObject({
			response: null,
			negative: null,
			waits: 1
		});
	});

	it('a refusal is the answer, with its reason', () => {
		const log = new LogWriter().frame('7E0', '02 19 0A').frame('7E8', '03 7F 19 31');
		const [exchange] = analyse(log.text).exchanges;
		expect(exchange).toMatchObject({
			response: '7F1931',
			negative: { nrc: '31', text: 'does not hold what was asked for' }
		});
	});

	it('a module that stays silent leaves its request without an answer', () => {
		const log = new LogWriter().frame('760', '03 19 02 FF').frame('760', '03 19 02 FF', 2);
		expect([...analyse(log.text).exchanges]).toMatchObject([
			{ requestId: '760', responseId: '768', response: null },
			{ requestId: '760', responseId: '768', response: null, timeS: 2 }
		]);
	});

	it('two conversations at the same time do not mix', () => {
		const [a = [], b = []] = [CODES, '59 02 FF 40 40 13 2F 40 50 13 2F'].map(segmented);
		const log = new LogWriter().frame('7E0', '03 19 02 FF').frame('7E1', '03 19 02 FF');
		log
			.frame('7E8', a[0] ?? '')
			.frame('7E9', b[0] ?? '')
			.frame('7E1', '300000')
			.frame('7E0', '300000');
		for (let i = 1; i < 3; i++) {
			if (b[i]) log.frame('7E9', b[i] ?? '');
			if (a[i]) log.frame('7E8', a[i] ?? '');
		}
		const analysis = analyse(log.text);
		expect(analysis.modules.map((m) => [m.responseId, m.codes.length])).toEqual([
			['7E8', 3],
			['7E9', 2]
		]);
		expect(analysis.problems).toEqual([]);
	});

	it('a request to all is answered by each module that hears it', () => {
		const log = new LogWriter()
			.frame('7DF', '02 3E 00')
			.frame('7E8', '02 7E 00')
			.frame('7EA', '02 7E 00')
			.frame('18DB33F1', '02 3E 00')
			.frame('18DAF128', '02 7E 00');
		expect([...analyse(log.text).exchanges].map((e) => [e.requestId, e.responseId, e.response])).toEqual([
			['7DF', '7E8', '7E00'],
			['7DF', '7EA', '7E00'],
			['18DB33F1', '18DAF128', '7E00']
		]);
	});

	it('identifiers of 29 bits turn target and source round', () => {
		const log = new LogWriter().frame('18DA10F1', '03 19 02 FF').message('18DAF110', '18DA10F1', CODES);
		const analysis = analyse(log.text);
		expect(analysis.modules[0]).toMatchObject({ requestId: '18DA10F1', responseId: '18DAF110' });
		expect(analysis.modules[0]?.codes).toHaveLength(3);
	});

	it('a pair that no rule knows is followed when it is given', () => {
		const log = new LogWriter().frame('641', '03 19 02 FF').frame('651', '07 59 02 FF 40 35 14 2F');
		expect(analyse(log.text).exchanges.length).toBe(0);
		const pair = parsePair('641:651');
		if (!pair.ok) throw new Error(pair.error);
		expect(analyse(log.text, [pair.value]).modules).toMatchObject([{ requestId: '641', responseId: '651' }]);
		expect(parsePair('641').ok).toBe(false);
		expect(parsePair('7E0:18DAF110').ok).toBe(false);
	});

	it('an answer whose request is not in the log still tells its codes', () => {
		const log = new LogWriter().frame('7E8', '07 59 02 FF 40 35 14 2F');
		const analysis = analyse(log.text);
		expect([...analysis.exchanges]).toMatchObject([{ requestId: null, request: null, responseId: '7E8' }]);
		expect(analysis.modules[0]?.codes).toHaveLength(1);
	});

	it('a list of all that a module knows tells of faults only', () => {
		const log = new LogWriter()
			.frame('7E0', '02 19 0A')
			.message('7E8', '7E0', '59 0A FF 40 35 14 50 40 40 13 2F');
		expect(analyse(log.text).modules[0]?.codes).toEqual([{ code: 'C0040', failureType: '13', status: 0x2f }]);
	});

	it('ordinary traffic, also on 7xx, is none of this', () => {
		const log = new LogWriter()
			.frame('1A0', '10 20 30 40 50 60 70 80')
			.frame('7A0', 'F0 11 22 33 44 55 66 77')
			.frame('7A1', '03 C0 FF FF');
		const analysis = analyse(log.text);
		expect(analysis.exchanges.length).toBe(0);
		expect(analysis.problems).toEqual([]);
	});
});

describe('what breaks', () => {
	const [first = '', second = '', third = ''] = segmented(CODES);
	const asked = () => new LogWriter().frame('7E0', '03 19 02 FF').frame('7E8', first).frame('7E0', '300000');

	it('a lost segment is a sequence gap, told once; the rest of that message is passed over', () => {
		const long = segmented('59 02 FF ' + '40 35 14 2F '.repeat(8));
		const log = new LogWriter().frame('7E0', '03 19 02 FF').frame('7E8', long[0] ?? '');
		for (const frame of [long[1], long[3], long[4], long[5]]) log.frame('7E8', frame ?? '');
		const analysis = analyse(log.text);
		expect(reasons(analysis)).toEqual(['7E8 sequence gap']);
		expect(analysis.problems[0]).toMatchObject({ timeS: 0.003, detail: 'segment 2 expected, 3 came' });
		expect([...analysis.exchanges]).toMatchObject([{ request: '1902FF', response: null }]);
	});

	it('a message that begins before the last one is whole is an overlap, and is read', () => {
		const analysis = analyse(asked().frame('7E8', second).frame('7E8', '07 59 02 FF 40 35 14 2F').text);
		expect(reasons(analysis)).toEqual(['7E8 overlap']);
		expect(analysis.modules[0]?.codes).toHaveLength(1);
	});

	it('a message that waits longer than a second has timed out, whatever comes after', () => {
		const log = asked().frame('7E8', second).frame('100', '00', 1.5).frame('7E8', third);
		expect(reasons(analyse(log.text))).toEqual(['7E8 timeout']);
		expect(reasons(analyse(asked().text))).toEqual(['7E8 timeout']);
	});

	it('a receiver without room ends the message', () => {
		const log = new LogWriter().frame('7E0', '03 19 02 FF').frame('7E8', first).frame('7E0', '32 00 00');
		expect(reasons(analyse(log.text))).toEqual(['7E8 overflow']);
	});

	it('a damaged line is reported with its number and passed over', () => {
		const log = new LogWriter().frame('7E0', '03 19 02 FF');
		log
			.raw('(1000.1) bus0 7E8#0359')
			.raw('(1000.1) bus0 7E8#03595')
			.raw('rubbish')
			.raw('')
			.raw('(12) bus0 9FF#00');
		log
			.raw('(1000.2) bus0 7E8#0102030405060708')
			.raw('(1000.2) bus0 7E8#010203040506070809')
			.raw('(1.5) bus0 12#00');
		const analysis = analyse(log.text);
		expect(analysis.badLines).toEqual([
			{ line: 3, reason: 'column 24: expected the second hex digit of this byte' },
			{ line: 4, reason: 'column 1: expected (seconds) interface ID#DATA' },
			{ line: 6, reason: 'column 11: an 11-bit identifier goes up to 7FF' },
			{ line: 8, reason: 'column 35: expected at most 8 bytes of data' },
			{ line: 9, reason: 'column 12: expected an identifier of 3 or 8 hex digits' }
		]);
		expect(analysis.frames).toBe(3);
	});

	it('remote frames, flexible data rate, directions and line ends of other systems are read', () => {
		const text =
			'(1.000000) bus0 123#R\r\n(1.000100) bus0 123#R8\r\n(1.000200) bus0 7E0##1031902FF T\r\n' +
			'(1.000300) bus0 7E8##1000F5902FF4035142FC12187AFC4158128 R\r\n';
		const analysis = analyse(text);
		expect(analysis.badLines).toEqual([]);
		expect(analysis.frames).toBe(4);
		expect(analysis.modules[0]?.codes).toHaveLength(3);
	});

	it('the same log in pieces of any size says the same', () => {
		const text = new LogWriter().frame('7E0', '03 19 02 FF').message('7E8', '7E0', CODES).raw('rubbish').text;
		const bytes = new TextEncoder().encode(text);
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 60 }), (size) => {
				const analysis = new BusAnalysis();
				for (let at = 0; at < bytes.length; at += size) analysis.push(bytes.subarray(at, at + size));
				analysis.end();
				expect([...analysis.exchanges]).toEqual([...analyse(text).exchanges]);
				expect(analysis.badLines).toEqual(analyse(text).badLines);
			})
		);
	});

	it('any message in segments comes out as it went in', () => {
		fc.assert(
			fc.property(fc.uint8Array({ minLength: 1, maxLength: 400 }), (payload) => {
				const data = '22' + Buffer.from(payload).toString('hex').toUpperCase();
				const [exchange] = analyse(new LogWriter().message('7E0', '7E8', data).text).exchanges;
				expect(exchange?.request).toBe(data);
			})
		);
	});

	it('never throws on any bytes', () => {
		fc.assert(
			fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
				const analysis = new BusAnalysis();
				analysis.push(bytes);
				analysis.end();
				expect(analysis.frames + analysis.badLineCount).toBeLessThanOrEqual(analysis.lineCount);
			})
		);
	});
});

describe('heavy vehicles', () => {
	const lamps = {
		malfunction: { state: 'off', flash: 'steady' },
		stop: { state: 'off', flash: 'steady' },
		warning: { state: 'on', flash: 'steady' },
		protect: { state: 'off', flash: 'steady' }
	} as const;
	const wheel = (spn: number) => ({ spn, fmi: 5, occurrences: 3, conversion: 0 as const });

	it('a code message in one frame', () => {
		const log = new LogWriter().frame('18FECA0B', '04 FF 15 03 05 03 FF FF');
		expect(analyse(log.text).broadcasts).toEqual([
			{ source: '0B', pgn: 65226, codes: [wheel(789)], lamps, messages: 1 }
		]);
	});

	it('a long one in announced packets, while another sender sends too', () => {
		const long = encodeDiagnosticMessage({ lamps, codes: [789, 790, 791, 792].map(wheel) });
		const other = encodeDiagnosticMessage({ lamps, codes: [795, 796].map(wheel) });
		const a = announced('0B', 65226, long);
		const b = announced('03', 65227, other);
		const log = new LogWriter();
		for (let i = 0; i < Math.max(a.length, b.length); i++) {
			for (const frame of [a[i], b[i]]) if (frame) log.frame(frame[0], frame[1], 0.05);
		}
		const { broadcasts, problems } = analyse(log.text);
		expect(problems).toEqual([]);
		expect(broadcasts.map((m) => [m.source, m.pgn, m.codes.map((c) => c.spn)])).toEqual([
			['03', 65227, [795, 796]],
			['0B', 65226, [789, 790, 791, 792]]
		]);
	});

	it('a message to one receiver is asked for, permitted and repeated where asked again', () => {
		const codes = [789, 790, 791].map(wheel);
		const [, ...packets] = announced('0B', 65227, encodeDiagnosticMessage({ lamps, codes }));
		const log = new LogWriter()
			.frame('18ECF90B', '10 0E 00 02 FF CB FE 00')
			.frame('18EC0BF9', '11 02 01 FF FF CB FE 00');
		const send = (i: number) => log.frame('18EBF90B', packets[i]?.[1] ?? '');
		send(0);
		log.frame('18EC0BF9', '11 02 01 FF FF CB FE 00');
		send(0);
		send(1);
		expect(analyse(log.text).broadcasts[0]?.codes).toEqual(codes);
		expect(analyse(log.text).problems).toEqual([]);
	});

	it('a lost packet, a new announcement in the middle and silence are each told', () => {
		const frames = announced(
			'0B',
			65226,
			encodeDiagnosticMessage({ lamps, codes: [789, 790, 791].map(wheel) })
		);
		const [head = ['', ''], one = ['', ''], two = ['', '']] = frames;
		const lost = new LogWriter().frame(...head).frame(...two);
		expect(reasons(analyse(lost.text))).toEqual(['1CECFF0B sequence gap']);
		const overlap = new LogWriter()
			.frame(...head)
			.frame(...one)
			.frame(...head)
			.frame(...one)
			.frame(...two);
		expect(reasons(analyse(overlap.text))).toEqual(['1CECFF0B overlap']);
		expect(analyse(overlap.text).broadcasts).toHaveLength(1);
		const silent = new LogWriter()
			.frame(...head)
			.frame(one[0], one[1])
			.frame('100', '00', 1);
		expect(reasons(analyse(silent.text))).toEqual(['1CECFF0B timeout']);
	});
});
