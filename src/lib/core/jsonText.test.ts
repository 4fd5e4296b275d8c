import { describe, expect, it } from 'vitest';
import { parseJsonText } from './jsonText';

describe('JSON from text', () => {
	it.each([
		['', 'it is empty: expected JSON'],
		['{"a": [1, 2', /^(it ends in the middle|no JSON at line 1, column)/],
		['{\n"a": 1,\n"b" 2}', 'no JSON at line 3, column 5'],
		['\u0000\u0001', /^(this is no JSON|no JSON at line 1, column 1$)/]
	])('%j is refused with its place and without its content', (text, words) => {
		const read = parseJsonText(text);
		expect(!read.ok && read.error).toMatch(words);
	});

	it('gives what is JSON', () => {
		expect(parseJsonText(' {"a":[1]}\n')).toEqual({ ok: true, value: { a: [1] } });
	});
});
