import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { FORMULA } from './formula';
import { writeCsv } from './live/writeCsv';

describe('a cell that goes out in a file', () => {
	it('is no formula, whatever anybody wrote, and numbers stay numbers', () => {
		for (const bad of ['=1+1', '+1+1', '-1+1', '@SUM(A1)', '\t=1', '\r=1', '-cmd|x', '=-1', '+', '-'])
			expect(FORMULA.test(bad), bad).toBe(true);
		for (const good of ['-1', '+2.5', '-3e-7', '.5', 'C0045', '3-4', '', 'a=b'])
			expect(FORMULA.test(good), good).toBe(false);
	});

	it('begins with no sign that a spreadsheet runs, unless it is a number', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary', maxLength: 30 }), (text) => {
				const [[cell = ''] = []] = Papa.parse<string[]>(
					Papa.unparse([[text]], { escapeFormulae: FORMULA })
				).data;
				return !/^[=+\-@\t\r]/.test(cell) || Number.isFinite(Number(cell));
			})
		);
	});

	it('may be the name of a signal in a recording that came from elsewhere', () => {
		const csv = writeCsv({
			timeS: Float64Array.of(0),
			channels: new Map([['=HYPERLINK("x")', Float64Array.of(-1)]])
		});
		expect(csv).toContain(`'=HYPERLINK`);
		expect(csv).toContain('\n0,-1');
	});
});
