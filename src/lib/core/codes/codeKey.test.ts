import { describe, expect, it } from 'vitest';
import { codeKey, isCodeKey, splitCodeKey } from './codeKey';

describe('a code in a module', () => {
	it('is taken apart into what it was made of', () => {
		const one = { address: '1010', dtc: '404513' };
		expect(splitCodeKey(codeKey(one))).toEqual(one);
		expect(codeKey(one)).not.toBe(codeKey({ ...one, address: '1040' }));
	});
	it('may be named in a maker’s own notation, strokes and all', () => {
		const one = { address: '1010', dtc: '=left/right differ' };
		expect(splitCodeKey(codeKey(one))).toEqual(one);
	});
	it('is told from any other text', () => {
		for (const key of ['1010/403514', '0028/SPN 789 FMI 5', '0028/=left/right differ'])
			expect(isCodeKey(key), key).toBe(true);
		for (const text of ['', '1010/', '10/403514', '1010/4035', '1010/SPN 789', '1010/=', '403514'])
			expect(isCodeKey(text), text).toBe(false);
	});
	it('is none without both', () => {
		for (const text of ['', '1010', '1010/', '/404513'])
			expect(splitCodeKey(text)).toEqual({ address: '', dtc: '' });
	});
});
