import { describe, expect, it } from 'vitest';
import { vehicleTypes } from './index';
import { ambiguousCodes, bookBy, numberingByCodes, numberingBySource } from './numbering';
import { wheelCircuitOf } from './codePack';
import { shippedBook, titleSource } from './codes';

const cornerBy = (numbering: 'circuit' | 'table', code: string) =>
	wheelCircuitOf(titleSource(bookBy(shippedBook, numbering), { code, failureType: null, maker: null }));

describe('two numberings of one code', () => {
	it('the same code is another wheel, or none, by the other', () => {
		expect([...ambiguousCodes]).toEqual(expect.arrayContaining(['C0035', 'C0040', 'C0045']));
		expect([cornerBy('circuit', 'C0035'), cornerBy('table', 'C0035')]).toEqual(['front-left', 'front-right']);
		expect([cornerBy('circuit', 'C0045'), cornerBy('table', 'C0045')]).toEqual(['rear-left', null]);
	});

	it('two codes of one sensor never split over two corners', () => {
		for (const numbering of ['circuit', 'table'] as const)
			for (const pair of [
				['C0034', 'C0035'],
				['C0037', 'C0038']
			]) {
				const corners = pair.map((code) => cornerBy(numbering, code)).filter(Boolean);
				// By the older numbering the table's own codes speak of their wheel alone, and they show which is used.
				if (numbering === 'table') expect(new Set(corners).size, pair.join()).toBe(1);
				expect(numberingByCodes(new Set(pair), false)).toBe('table');
			}
	});

	it.each([
		['a code of the newer table', ['C0034', 'C0045'], 'table'],
		['the four circuits, with rings of the table', ['C0035', 'C0040', 'C0045', 'C0050', 'C0036'], 'circuit'],
		['nothing that tells', ['C0045', 'U0121'], null]
	])('%s: %s', (_, codes, numbering) => {
		expect(numberingByCodes(new Set(codes), true)).toBe(numbering);
	});

	it('a described vehicle keeps its maker’s: rear left stays rear left on every one of ours', () => {
		for (const { maker, wheels } of vehicleTypes.values()) {
			if (!wheels.some(({ position }) => position === 'rear-left')) continue;
			const numbering = numberingBySource(shippedBook, maker) ?? 'circuit';
			const source = titleSource(bookBy(shippedBook, numbering), { code: 'C0045', failureType: '13', maker });
			expect(wheelCircuitOf(source), maker).toBe('rear-left');
		}
	});
});
