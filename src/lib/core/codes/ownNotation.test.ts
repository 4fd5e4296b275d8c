import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeId, codeName, codeNumber, codeOfId, isCodeId, isCodeNumber, suffixOf } from './codeId';
import { findCodes } from './findCodes';
import { ownNotation, ownNumberIn } from './ownNotation';
import { codeCalled, formatSpelling, parseSpelling } from './spelling';

describe('a maker’s own notation', () => {
	it('is what stands after an equals sign, whatever it looks like', () => {
		for (const [text, written] of [
			['=480a12', '480A12'],
			[' = 01314-004 ', '01314-004'],
			['=C0035', 'C0035'],
			['=Wheel sensor  front left:\tno signal', 'Wheel sensor front left: no signal']
		]) {
			const read = parseSpelling(text ?? '');
			expect(read.ok && read.value.codes).toEqual([{ kind: 'own', written }]);
		}
		for (const text of ['=', '=  ', `=${'9'.repeat(121)}`]) expect(parseSpelling(text).ok).toBe(false);
	});

	it('reads back to itself, called without the sign', () => {
		fc.assert(
			fc.property(fc.string({ minLength: 1, maxLength: 60 }), (text) => {
				const written = ownNotation(text);
				fc.pre(written !== '');
				const code = { kind: 'own' as const, written };
				const id = codeId(code);
				expect(isCodeId(id)).toBe(true);
				expect(codeOfId(id)).toEqual(code);
				expect(codeCalled(code)).toBe(written);
				expect(codeName(id)).toBe(written);
			})
		);
	});

	it('in a print-out it is the number at the head of a line under the name of a module', () => {
		const found = (text: string) =>
			findCodes(text).modules.flatMap(({ name, codes }) =>
				codes.map(({ code, words, told }) => [name, formatSpelling(code), told, ...words])
			);
		expect(
			found(
				'Workshop 12345 Harbour\nABS:\n01314 - Engine control, no communication  sporadic\n5DF0A  Wheel sensor rear left: open\n2 codes\n12034 km'
			)
		).toEqual([
			['ABS', '=01314', 'Engine control no communication', 'sporadic'],
			['ABS', '=5DF0A', 'Wheel sensor rear left: open']
		]);
	});

	it.each([
		['48120 km', false],
		['FACADE painted', false],
		['1234 Short', false],
		['1234567 Long', false],
		['48120', false],
		['3. 48120 Sensor', true],
		['480A12 | Sensor', true]
	])('%s: %s', (line, is) => expect(ownNumberIn(line, false) !== null).toBe(is));
	it('may stand alone where a module’s codes are written down', () =>
		expect(ownNumberIn('48120', true)).toEqual({ from: 0, to: 5 }));
});

describe('the id of a code', () => {
	it.each([
		['C0035-14', '403514', 'C0035', 'C0035-14', '14'],
		['C0035', '403500', 'C0035', 'C0035-00', '00'],
		['SPN 789 FMI 5 OC 3', 'SPN 789 FMI 5', 'SPN 789', 'SPN 789 FMI 5', null],
		['SPN 789 FMI 5 CM 1', 'SPN 789 FMI 5 CM 1', 'SPN 789', 'SPN 789 FMI 5 CM 1', null],
		['=01314', '=01314', '=01314', '01314', null]
	])('%s → %s', (text, id, number, name, suffix) => {
		const read = parseSpelling(text);
		const [code] = read.ok ? read.value.codes : [];
		if (!code || code.kind === 'lamp') throw new Error(text);
		expect(codeId(code)).toBe(id);
		expect([codeNumber(id), codeName(id), suffixOf(id)]).toEqual([number, name, suffix]);
		expect([isCodeId(id), isCodeNumber(number)]).toEqual([true, true]);
		expect(codeId(codeOfId(id))).toBe(id);
	});

	it('is nothing else: what cannot be read back is none', () => {
		for (const text of [
			'',
			'403',
			'40351g',
			'SPN 999999 FMI 5',
			'SPN 789 FMI 32',
			'SPN 0789 FMI 5',
			'SPN 789 FMI 5 OC 3',
			'789/5',
			'=',
			'= 1',
			'lamp 3-4'
		])
			expect(isCodeId(text), text).toBe(false);
		for (const text of ['', 'C003', 'SPN', 'SPN 789 FMI 5', 'SPN 999999', '=', '=a  b'])
			expect(isCodeNumber(text), text).toBe(false);
		expect(() => codeOfId('403')).toThrow(RangeError);
	});
});
