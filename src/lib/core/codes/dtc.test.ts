import { describe, expect, it } from 'vitest';
import {
	codeFromNumber,
	codeSystem,
	codeText,
	codeToNumber,
	codeWithSuffix,
	definedBy,
	dtcBytes,
	dtcHex
} from './dtc';

describe('codes as text', () => {
	it.each([
		['403513', 'C0035-13', 'chassis', 'standard'],
		['C41581', 'U0415-81', 'network', 'standard'],
		['5A452F', 'C1A45-2F', 'chassis', 'maker'],
		['F00100', 'U3001-00', 'network', 'standard'],
		['B00100', 'B3001-00', 'body', 'reserved'],
		['F10100', 'U3101-00', 'network', 'reserved'],
		['700100', 'C3001-00', 'chassis', 'reserved'],
		['030000', 'P0300-00', 'powertrain', 'standard'],
		['330011', 'P3300-11', 'powertrain', 'maker'],
		['340011', 'P3400-11', 'powertrain', 'standard'],
		['3A0011', 'P3A00-11', 'powertrain', 'reserved']
	])('%s reads %s', (dtc, text, system, who) => {
		expect(codeWithSuffix(dtc)).toBe(text);
		expect(codeSystem(codeText(dtc))).toBe(system);
		expect(definedBy(codeText(dtc))).toBe(who);
		expect(dtcHex(codeText(dtc), dtc.slice(4))).toBe(dtc);
	});

	it('all 65,536 pairs of bytes are one code each', () => {
		const seen = new Set<string>();
		for (let number = 0; number <= 0xffff; number++) {
			const code = codeFromNumber(number);
			seen.add(code);
			expect(codeToNumber(code)).toBe(number);
		}
		expect(seen.size).toBe(0x10000);
	});

	it('bytes go on the wire high byte first', () => {
		expect(dtcBytes('403513')).toEqual([0x40, 0x35, 0x13]);
	});

	it('refuses what was not parsed before', () => {
		expect(() => codeText('4035')).toThrow(RangeError);
		expect(() => codeToNumber('C4035')).toThrow(RangeError);
	});
});
