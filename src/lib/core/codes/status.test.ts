import { describe, expect, it } from 'vitest';
import { decodeStatus, encodeStatus, statusPhrase, tellsOfFault } from './status';

describe('the status byte', () => {
	it('survives decoding and encoding for all 256 values', () => {
		for (let byte = 0; byte < 256; byte++) expect(encodeStatus(decodeStatus(byte))).toBe(byte);
	});

	it('gives each bit the meaning of the standard', () => {
		expect(decodeStatus(0x2f)).toEqual({
			testFailed: true,
			testFailedThisCycle: true,
			pending: true,
			confirmed: true,
			notTestedSinceClear: false,
			failedSinceClear: true,
			notTestedThisCycle: false,
			lampRequested: false
		});
	});

	it('counts "not tested yet" as no fault, and every failure bit as one', () => {
		expect(tellsOfFault(0x50)).toBe(false);
		expect(tellsOfFault(0x00)).toBe(false);
		for (const bit of [0x01, 0x02, 0x04, 0x08, 0x20, 0x80]) expect(tellsOfFault(bit | 0x50)).toBe(true);
	});

	it('says the strongest thing in plain words', () => {
		expect(statusPhrase(0xaf)).toBe('failing now, confirmed');
		expect(statusPhrase(0x28)).toBe('stored, not failing now');
		expect(statusPhrase(0x50)).toBe('its test has not run since the clear');
		expect(statusPhrase(0x00)).toBe('tested good');
	});
});
