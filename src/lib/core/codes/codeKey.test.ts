import { describe, expect, it } from 'vitest';
import { codeKey, splitCodeKey } from './codeKey';

describe('a code in a module', () => {
	it('is taken apart into what it was made of', () => {
		const one = { address: '1010', dtc: '404513' };
		expect(splitCodeKey(codeKey(one))).toEqual(one);
		expect(codeKey(one)).not.toBe(codeKey({ ...one, address: '1040' }));
	});
	it('is none without both', () => {
		for (const text of ['', '1010', '1010/', '/404513', '1/2/3'])
			expect(splitCodeKey(text)).toEqual({ address: '', dtc: '' });
	});
});
