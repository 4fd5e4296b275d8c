import { describe, expect, it } from 'vitest';
import { runsOf } from './runs';

const joined = (text: string) =>
	runsOf(text)
		.map(({ text: run }) => run)
		.join('');

describe('text on paper', () => {
	it('keeps Latin letters, accents and signs as they are', () => {
		const text = 'C0045-13 “rear left” – 12.4 V, 3 × 4 °C, ½ µ, Jörg';
		expect(runsOf(text)).toEqual([{ text, font: 'Next' }]);
	});

	it('takes letters of the second piece from it', () => {
		expect(runsOf('Ana Řeháková')).toEqual(
			[
				{ text: 'Ana ', font: 'Next' },
				{ text: 'Ř', font: 'NextMore' },
				{ text: 'ehákov', font: 'Next' },
				{ text: 'á', font: 'Next' }
			].reduce<{ text: string; font: string }[]>((all, run) => {
				const last = all.at(-1);
				if (last?.font === run.font) last.text += run.text;
				else all.push({ ...run });
				return all;
			}, [])
		);
	});

	it('says signs of the trade in words, and never drops one silently', () => {
		expect(joined('1.2 kΩ → 60 Ω ≥ 5')).toBe('1.2 kohm to 60 ohm at least 5');
		expect(joined('貓')).toBe('?');
	});
});
