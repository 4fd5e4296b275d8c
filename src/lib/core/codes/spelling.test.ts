import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatBytes, formatSpelling, parseSpelling, type AnyCode } from './spelling';
import { decodeDiagnosticMessage, encodeDiagnosticMessage, olderNumbers } from './diagnosticMessage';

const codesOf = (text: string): AnyCode[] => {
	const spelled = parseSpelling(text);
	if (!spelled.ok) throw new Error(`${text}: ${spelled.error.expected} at ${spelled.error.at}`);
	return spelled.value.codes;
};
const dtc = (code: string, failureType: string | null = null, status: number | null = null): AnyCode => ({
	kind: 'dtc',
	code,
	failureType,
	status
});
const heavy = (spn: number, fmi: number, occurrences: number | null = null): AnyCode => ({
	kind: 'j1939',
	spn,
	fmi,
	occurrences,
	conversion: 0
});

describe('spellings of one code', () => {
	it.each([
		['C0035', dtc('C0035')],
		['c0035', dtc('C0035')],
		['  C0035-14 ', dtc('C0035', '14')],
		['C0035:14', dtc('C0035', '14')],
		['C0035 14', dtc('C0035', '14')],
		['C003514', dtc('C0035', '14')],
		['c0035-14/2f', dtc('C0035', '14', 0x2f)],
		['C0035/2F', dtc('C0035', null, 0x2f)],
		['0x4035', dtc('C0035')],
		['0x403514', dtc('C0035', '14')],
		['403514', dtc('C0035', '14')],
		['40 35 14', dtc('C0035', '14')],
		['0x40 0x35 0x14', dtc('C0035', '14')],
		['403514/2F', dtc('C0035', '14', 0x2f)],
		['403514:2F', dtc('C0035', '14', 0x2f)],
		['40 35 14 / 2F', dtc('C0035', '14', 0x2f)],
		['403514/12', dtc('C0035', '14', 0x12)],
		['40 35 14 2F', dtc('C0035', '14', 0x2f)],
		['B00100', dtc('B3001', '00')],
		['C00351', dtc('U0003', '51')],
		['B0001', dtc('B0001')],
		['U0121-87', dtc('U0121', '87')],
		['SPN 789 FMI 5', heavy(789, 5)],
		['spn:789, fmi:5, oc:3', heavy(789, 5, 3)],
		['789/5', heavy(789, 5)],
		['789/5/3', heavy(789, 5, 3)],
		['521000/5', heavy(521_000, 5)],
		['lamp 3-4', { kind: 'lamp', groups: [3, 4] }],
		['Lamp code: 1 2 3', { kind: 'lamp', groups: [1, 2, 3] }]
	] satisfies [string, AnyCode][])('%s', (text, code) => {
		expect(codesOf(text)).toEqual([code]);
	});

	it.each([
		['59 02 FF 40 35 14 2F', [dtc('C0035', '14', 0x2f)]],
		['5902FF4035142FC12187AF', [dtc('C0035', '14', 0x2f), dtc('U0121', '87', 0xaf)]],
		['07 59 02 FF 40 35 14 2F', [dtc('C0035', '14', 0x2f)]],
		['59 03 40 35 14 01 40 40 13 02', [dtc('C0035', '14'), dtc('C0040', '13')]],
		['59 04 40 35 14 2F 01 01 F4 0D 2A', [dtc('C0035', '14', 0x2f)]],
		['59 08 FF 20 10 40 35 14 2F', [dtc('C0035', '14', 0x2f)]],
		['43 02 40 35 C1 21', [dtc('C0035'), dtc('U0121')]],
		['43 01 40 35 00 00 00 00', [dtc('C0035')]],
		['04 FF 15 03 05 03 FF FF', [heavy(789, 5, 3)]],
		['DM1 04 FF 15 03 05 03', [heavy(789, 5, 3)]],
		['DM1 04FF150305030000', [heavy(789, 5, 3)]],
		['DM2: 00 FF 15 03 05 03 16 03 E5 7F', [heavy(789, 5, 3), heavy(0x70316, 5)]],
		['00 FF 00 00 00 00 FF FF', []],
		['59 01 FF 01 00 05', []]
	] satisfies [string, AnyCode[]][])('the answer or message %s', (text, codes) => {
		expect(codesOf(text)).toEqual(codes);
	});

	it.each([
		['', 0, 'a code such as'],
		['hello', 0, 'a code such as'],
		['C4035', 1, 'a digit 0–3'],
		['C00G5', 3, 'hex digits'],
		['C0035-1', 5, 'two hex digits'],
		['C0035-14-2F-9', 5, 'failure type'],
		['4035 1', 6, 'second hex digit'],
		['59 02 FF 40 35', 14, 'the last one is cut'],
		['59 99 FF 40 35 14', 3, 'a kind of code list'],
		['SPN 789', 7, 'then FMI'],
		['789/32', 4, '0–31'],
		['SPN 600000 FMI 5', 4, 'up to 524287'],
		['lamp', 4, 'counts of flashes'],
		['lamp 3-0', 5, 'at least one flash'],
		['DM1 04 FF 15', 12, 'four bytes for each code'],
		['  C4035', 3, 'a digit 0–3']
	])('%j is refused at sign %i', (text, at, words) => {
		const spelled = parseSpelling(text);
		if (spelled.ok) throw new Error(`${text} was read as ${JSON.stringify(spelled.value)}`);
		expect(spelled.error.at).toBe(at);
		expect(spelled.error.expected).toContain(words);
	});
});

describe('both directions', () => {
	it('three bytes read as a code and written again are the same three bytes, for any of the 2²⁴', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 0xffffff }), (number) => {
				const raw = number.toString(16).toUpperCase().padStart(6, '0');
				const [code] = codesOf(raw);
				if (code?.kind !== 'dtc') throw new Error('not a code');
				expect(formatBytes(code.code, code.failureType).replaceAll(' ', '')).toBe(raw);
				expect(codesOf(formatSpelling(code))).toEqual([code]);
			}),
			{ numRuns: 5000 }
		);
	});

	it('every status byte survives with its code', () => {
		for (let status = 0; status < 256; status++) {
			expect(codesOf(formatSpelling(dtc('C0035', '14', status)))).toEqual([dtc('C0035', '14', status)]);
		}
	});

	const code = fc.record({
		spn: fc.integer({ min: 1, max: 0x7fffe }),
		fmi: fc.integer({ min: 0, max: 31 }),
		occurrences: fc.option(fc.integer({ min: 0, max: 126 })),
		conversion: fc.constantFrom(0 as const, 1 as const)
	});

	it('a heavy vehicle’s code is spelled with its conversion bit', () => {
		fc.assert(
			fc.property(code, (heavy) => {
				expect(codesOf(formatSpelling({ kind: 'j1939', ...heavy }))).toEqual([{ kind: 'j1939', ...heavy }]);
			})
		);
		expect(codesOf('DM1 04 FF 15 03 05 83')).toMatchObject([
			{ spn: 789, fmi: 5, occurrences: 3, conversion: 1 }
		]);
	});

	it('what its number would be in the older orders of bits has the same bytes', () => {
		// 0x15 0x03 and 000: the first byte above, then the second; and exchanged.
		expect(olderNumbers(789)).toEqual([(0x15 << 11) | (0x03 << 3), (0x03 << 11) | (0x15 << 3)]);
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 0x7ffff }), (spn) => {
				const [high, exchanged] = olderNumbers(spn);
				expect(high & 7).toBe(spn >> 16);
				expect([high >> 11, (high >> 3) & 0xff]).toEqual([spn & 0xff, (spn >> 8) & 0xff]);
				expect([exchanged >> 11, (exchanged >> 3) & 0xff]).toEqual([(spn >> 8) & 0xff, spn & 0xff]);
			})
		);
	});

	it('a heavy vehicle’s message is written as it was read', () => {
		fc.assert(
			fc.property(
				fc.array(code, { maxLength: 20 }),
				fc.integer({ min: 0, max: 0xffff }),
				(codes, lampBits) => {
					const head = decodeDiagnosticMessage(Uint8Array.of(lampBits >> 8, lampBits & 0xff, 0, 0, 0, 0));
					if (!head.ok) throw new Error('no lamps');
					const message = { lamps: head.value.lamps, codes };
					expect(decodeDiagnosticMessage(encodeDiagnosticMessage(message))).toEqual({
						ok: true,
						value: message
					});
				}
			)
		);
	});

	it('the worked message of the standard: amber lamp on, parameter 1208, mode 3, ten times', () => {
		const message = decodeDiagnosticMessage(Uint8Array.of(0x04, 0xff, 0xb8, 0x04, 0x03, 0x0a, 0xff, 0xff));
		expect(message.ok && message.value.codes).toEqual([
			{ spn: 1208, fmi: 3, occurrences: 10, conversion: 0 }
		]);
		expect(message.ok && message.value.lamps.warning).toEqual({ state: 'on', flash: 'steady' });
		expect(message.ok && message.value.lamps.stop.state).toBe('off');
	});

	it('never throws on any text, and names a place within it', () => {
		fc.assert(
			fc.property(
				fc.oneof(fc.string({ unit: 'binary' }), fc.stringMatching(/^[PCBU0-9A-Fx/: -]*$/)),
				(text) => {
					const spelled = parseSpelling(text);
					if (spelled.ok) return;
					expect(spelled.error.at).toBeGreaterThanOrEqual(0);
					expect(spelled.error.at).toBeLessThanOrEqual(text.length);
				}
			)
		);
	});
});
