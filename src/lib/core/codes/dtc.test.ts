import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeSystem, codeText, codeWithSuffix, definedBy, dtcBytes, failureTypeByte, parseCode } from './dtc';

const anyDtc = fc
	.integer({ min: 0, max: 0xffffff })
	.map((n) => n.toString(16).toUpperCase().padStart(6, '0'));

describe('codes as text', () => {
	it.each([
		['403513', 'C0035-13', 'chassis', 'standard'],
		['C41581', 'U0415-81', 'network', 'standard'],
		['5A452F', 'C1A45-2F', 'chassis', 'maker'],
		['B00100', 'B3001-00', 'body', 'reserved'],
		['030000', 'P0300-00', 'powertrain', 'standard'],
		['330011', 'P3300-11', 'powertrain', 'maker'],
		['340011', 'P3400-11', 'powertrain', 'standard'],
		['3A0011', 'P3A00-11', 'powertrain', 'reserved']
	])('%s reads %s', (dtc, text, system, who) => {
		expect(codeWithSuffix(dtc)).toBe(text);
		expect(codeSystem(dtc)).toBe(system);
		expect(definedBy(dtc)).toBe(who);
	});

	it('reading what was written gives the same three bytes, for any three bytes', () => {
		fc.assert(
			fc.property(anyDtc, (dtc) => {
				expect(parseCode(codeWithSuffix(dtc))).toEqual({ ok: true, value: dtc });
				expect(
					dtcBytes(dtc)
						.map((b) => b.toString(16).toUpperCase().padStart(2, '0'))
						.join('')
				).toBe(dtc);
				expect(codeText(dtc) + failureTypeByte(dtc)).toHaveLength(7);
			})
		);
	});

	it('never throws on any text, and says what it expected', () => {
		fc.assert(
			fc.property(fc.string(), (text) => {
				const parsed = parseCode(text);
				if (!parsed.ok) expect(parsed.error).toMatch(/letter P, C, B or U/);
			})
		);
		expect(parseCode('C4035-13').ok).toBe(false);
	});
});
