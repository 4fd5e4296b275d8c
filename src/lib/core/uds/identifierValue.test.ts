import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeIdentifier, encodeIdentifier, type ValueRule } from './identifierValue';

const volts: ValueRule = { as: 'number', bytes: 2, scale: 0.001, unit: 'V', decimals: 2 };
const angle: ValueRule = { as: 'signed', bytes: 2, scale: 0.1, unit: '°', decimals: 1 };
const wheel: ValueRule = { as: 'number', bytes: 2, scale: 0.01, unit: 'km/h', decimals: 2, invalid: 'FFFF' };

describe('values behind identifiers', () => {
	it('come in their unit', () => {
		expect(decodeIdentifier(volts, '30D4')).toMatchObject({ value: 12.5, text: '12.50 V' });
		expect(decodeIdentifier(angle, 'FFF6')).toMatchObject({ value: -1, text: '-1.0 °' });
		expect(decodeIdentifier({ as: 'text', bytes: 4 }, '41422020')).toEqual({ kind: 'text', text: 'AB' });
	});

	it('are "not available" and not 655 km/h when the module says so', () => {
		expect(decodeIdentifier(wheel, 'FFFF')).toEqual({ kind: 'not-available' });
		expect(encodeIdentifier(wheel, null)).toBe('FFFF');
		expect(encodeIdentifier(wheel, 99_999)).toBe('FFFE');
	});

	it('say so when bytes are missing', () => {
		expect(decodeIdentifier(volts, '30')).toEqual({ kind: 'wrong-length', expectedBytes: 2 });
	});

	it('survive encoding and decoding to half a count', () => {
		fc.assert(
			fc.property(fc.double({ min: -3000, max: 3000, noNaN: true }), (value) => {
				const back = decodeIdentifier(angle, encodeIdentifier(angle, value));
				expect(back.kind === 'number' && Math.abs(back.value - value)).toBeLessThanOrEqual(0.0501);
			})
		);
	});
});
