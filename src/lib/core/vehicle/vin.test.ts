import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkVin, vinIn, vinCheckDigit, vinSays } from './vin';

describe('the check digit of a vehicle number', () => {
	it('is 1 for seventeen ones, the worked example of the rule', () => {
		expect(vinCheckDigit('11111111111111111')).toBe('1');
	});

	it('is X where the remainder is ten', () => {
		// Weights alone: place 1 counts 8, so 8·k mod 11 = 10 at k = 4.
		expect(vinCheckDigit('40000000000000000')).toBe('X');
	});

	it('notices any single wrong digit outside place 9', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 17, maxLength: 17 }),
				fc.integer({ min: 0, max: 16 }).filter((place) => place !== 8),
				fc.integer({ min: 1, max: 9 }),
				(digits, place, shift) => {
					const right = digits.join('');
					const wrong = digits.map((d, i) => (i === place ? (d + shift) % 10 : d)).join('');
					expect(vinCheckDigit(wrong)).not.toBe(vinCheckDigit(right));
				}
			)
		);
	});

	it('names the first thing that is wrong with a typed number', () => {
		expect(checkVin('1O')).toEqual({
			ok: false,
			error: 'Place 2 is "O", which no such number holds (I, O and Q are never used: read 1 or 0).'
		});
		expect(checkVin('BRM16')).toEqual({ ok: false, error: 'It has 5 signs; 17 are expected.' });
		expect(checkVin(' 1111 1111 1111 1111-2 ')).toMatchObject({ ok: true, value: { checkDigitFits: false } });
	});
});

describe('a number in what a printed code says', () => {
	const vin = '1M8GDM9AXKP042788';
	it.each([
		[vin, vin],
		[`I${vin}`, vin],
		[vin.toLowerCase(), vin],
		[`VIN=${vin};KM=84210`, vin],
		[`https://example.test/v/${vin}?a=1`, vin],
		// Of two, the one whose check digit fits.
		[`1M8GDM9A1KP042788 ${vin}`, vin],
		['1M8GDM9A1KP042788', '1M8GDM9A1KP042788']
	])('%s', (text, expected) => expect(vinIn(text)?.vin).toBe(expected));

	it.each(['', 'no number at all', 'ABCDEFGHJKLMNPRST', '12345678901234567890123', `XX${'1'.repeat(17)}99`])(
		'none in “%s”',
		(text) => expect(vinIn(text)).toBeNull()
	);
});

describe('what a number says by its places', () => {
	it('where it was built, whether its check digit fits, and which years it can mean', () => {
		// All ones: the classic example whose check digit is 1.
		expect(vinSays('11111111111111111', 2026)).toMatchObject({
			ok: true,
			value: { region: 'North America', checkDigit: 'fits', years: [2001] }
		});
		expect(vinSays('1111111121A111111', 2026)).toMatchObject({ ok: true, value: { checkDigit: 'wrong' } });
		expect(vinSays('WWW11111111111111', 2026)).toMatchObject({
			ok: true,
			value: { region: 'Europe', checkDigit: 'not-used' }
		});
	});
	it('says no year that has not come, and none where the mark is none', () => {
		const years = (mark: string, year: number) => {
			const says = vinSays(`S1111111A${mark}1111111`.slice(0, 17), year);
			return says.ok ? says.value.years : null;
		};
		expect(years('B', 2009)).toEqual([1981]);
		expect(years('B', 2010)).toEqual([1981, 2011]);
		expect(years('0', 2026)).toEqual([]);
		expect(vinSays('short', 2026)).toMatchObject({ ok: false });
	});
});
