import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findCodes } from './findCodes';
import { formatSpelling } from './spelling';

const summary = (text: string) =>
	findCodes(text).modules.map((module) => ({
		name: module.name,
		codes: module.codes.map((c) => [formatSpelling(c.code), ...c.words].join(' ')),
		values: module.values.map((v) => `${v.name} ${v.value} ${v.unit}`.trim())
	}));

const PRINT_OUT = `Harbour Garage          Page 1
Vehicle: minibus         Date: 24.11.2026

Brake control - 2 codes
-----------------------
C0045-13  Rear left wheel sensor      Status: 2F
   stored, present
   Vehicle speed . . : 12 km/h
   Supply voltage ...: 13,8 V
C0050-2F  Rear right wheel sensor     stored

Instrument cluster:
U0415-81   Invalid data               [28]
No further faults.`;

const MAIL = `Hi Ana,

the van shows C0035 and also U0121:87 in the steering module, they say the
abs light comes on after 10 minutes. We cleared it once on 11/25 and it came back.
Could you look at 403514/2F too?

Regards, Teo`;

const COLUMN = `C0040 13 2F
C0040 2F 28
U0415 81 A8
0xC121`;

describe('codes in text of any layout', () => {
	it('a print-out with headings, status and snapshot lines', () => {
		expect(summary(PRINT_OUT)).toEqual([
			{
				name: 'Brake control',
				codes: ['C0045-13/2F stored present', 'C0050-2F stored'],
				values: ['Vehicle speed 12 km/h', 'Supply voltage 13.8 V']
			},
			{ name: 'Instrument cluster', codes: ['U0415-81/28'], values: [] }
		]);
		const [brake] = findCodes(PRINT_OUT).modules;
		expect(brake?.codes[0]).toMatchObject({ line: 6, told: 'Rear left wheel sensor' });
		expect(brake?.values.map((v) => v.ofCode)).toEqual([0, 0]);
	});

	it('an e-mail: codes in running words, dates and minutes left alone', () => {
		expect(summary(MAIL)).toEqual([{ name: null, codes: ['C0035', 'U0121-87', 'C0035-14/2F'], values: [] }]);
		expect(findCodes(MAIL).ignored).toBe(3);
	});

	it('a bare column of codes with suffix and status', () => {
		expect(summary(COLUMN)).toEqual([
			{ name: null, codes: ['C0040-13/2F', 'C0040-2F/28', 'U0415-81/A8', 'U0121'], values: [] }
		]);
	});

	it('a table with the module in front of each code', () => {
		const table =
			'| ABS | C0035-14 | active |\n| ABS | C0040-13 | stored |\n| Steering | U0415-81 | stored |';
		expect(summary(table)).toEqual([
			{ name: 'ABS', codes: ['C0035-14 active', 'C0040-13 stored'], values: [] },
			{ name: 'Steering', codes: ['U0415-81 stored'], values: [] }
		]);
	});

	it('heavy vehicles: parameter and mode, short forms only where the text speaks of them', () => {
		expect(summary('Trailer brake\nSPN 789 FMI 5 OC 3 active\nSPN/FMI 792/2')).toEqual([
			{ name: 'Trailer brake', codes: ['SPN 789 FMI 5 OC 3 active', 'SPN 792 FMI 2'], values: [] }
		]);
		expect(findCodes('Done on 24/11, tyres 205/75').codes).toBe(0);
	});

	it('an answer in hex and a lamp code', () => {
		expect(summary('< 59 02 FF 40 35 14 2F C1 21 87 AF\nlamp code 3-4')[0]?.codes).toEqual([
			'C0035-14/2F',
			'U0121-87/AF',
			'lamp 3-4'
		]);
	});

	it('says which part of each line it understood', () => {
		const { lines } = findCodes(PRINT_OUT);
		const cut = (line: number) =>
			lines[line]?.spans.map((s) => [s.as, lines[line]?.text.slice(s.from, s.to).trim()]);
		expect(cut(3)).toEqual([['heading', 'Brake control - 2 codes']]);
		expect(cut(5)).toEqual([
			['code', 'C0045-13'],
			['status', 'Status: 2F']
		]);
		expect(cut(13)).toEqual([]);
	});

	it('part numbers and words that only look alike are left alone', () => {
		expect(findCodes('WC0035X 4C0035 C0035G C0035-1234 xC0035').codes).toBe(0);
	});

	it('never throws, and every place it names lies in its line', () => {
		const pieces = fc.constantFrom(
			'C0045-13',
			'Status: ',
			'2F',
			'SPN 789 FMI 5',
			' stored ',
			'\n',
			'ABS',
			': 12 km/h',
			'|',
			'\t',
			'59 02 FF 40 35 14 2F',
			'…'
		);
		fc.assert(
			fc.property(
				fc.oneof(
					fc.string({ unit: 'binary' }),
					fc.array(pieces).map((p) => p.join(' '))
				),
				(text) => {
					for (const { text: row, spans } of findCodes(text).lines)
						for (const { from, to } of spans) {
							expect(from).toBeGreaterThanOrEqual(0);
							expect(to).toBeLessThanOrEqual(row.length);
						}
				}
			)
		);
	});

	it('a long line of nothing takes no long time', () => {
		const text = `C0045-13 ${'a '.repeat(200_000)}\n${'- '.repeat(100_000)}`;
		expect(findCodes(text).codes).toBe(1);
	});
});
