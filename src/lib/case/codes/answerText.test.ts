import { describe, expect, it } from 'vitest';
import { shippedBook } from '../../../../library/codes';
import { answer, type AskedCases, type AskedLibrary } from './answerText';

const library: AskedLibrary = {
	bookFor: () => Promise.resolve(shippedBook),
	search: () => Promise.resolve([])
};
const none = () => Promise.resolve([]);
const cases: AskedCases = { search: none, casesWith: none, named: none };
const read = async (text: string) => {
	const { codes, what, trouble } = await answer(library, cases, text, null);
	return { codes: codes.map((code) => code.text), what, trouble };
};

describe('several codes in one line', () => {
	it.each([
		['C0035 C0045-13', ['C0035', 'C0045-13']],
		['C0035-13, U0415-81', ['C0035-13', 'U0415-81']],
		['403514/2F; C0045', ['C0035-14', 'C0045']],
		['SPN 789 FMI 5, C0035-13', ['SPN 789 FMI 5', 'C0035-13']],
		['C0035|C0040|C0045|C0050', ['C0035', 'C0040', 'C0045', 'C0050']]
	])('“%s” are read each by itself', async (text, codes) => {
		expect(await read(text)).toEqual({ codes, what: `${codes.length} codes`, trouble: null });
	});

	it('are none where one of them is none: what is wrong with the line is said', async () => {
		expect(await read('C0035 nonsense')).toMatchObject({ codes: [] });
		expect((await read('C0035-1X C0045')).trouble).not.toBeNull();
	});

	it('one code is one, and a module’s answer is its answer', async () => {
		expect(await read('C0035-13')).toMatchObject({ codes: ['C0035-13'], what: null });
		expect((await read('59 02 FF 40 35 14 2F 40 45 13 2F')).codes).toHaveLength(2);
	});
});
