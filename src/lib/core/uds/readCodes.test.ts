import { hexToBytes } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseCodeList, parseCount, parseExtended, parseSnapshots } from './readCodes';

const bytes = (text: string) => hexToBytes(text.replace(/ /g, ''));
const lengthOf = (id: string) => ({ F40D: 1, F442: 2 })[id] ?? null;

describe('answers to "read code information"', () => {
	it('reads codes with their status', () => {
		expect(parseCodeList(bytes('59 02 FF 40 35 13 2F C4 15 81 28'))).toEqual({
			ok: true,
			value: {
				availabilityMask: 0xff,
				codes: [
					{ dtc: '403513', status: 0x2f },
					{ dtc: 'C41581', status: 0x28 }
				]
			}
		});
	});

	it('refuses a list cut inside a code, naming the cut', () => {
		expect(parseCodeList(bytes('59 02 FF 40 35 13'))).toEqual({
			ok: false,
			error: '3 bytes of codes is no multiple of 4, so the last code is cut'
		});
		expect(parseCodeList(bytes('59')).ok).toBe(false);
	});

	it('reads a count', () => {
		expect(parseCount(bytes('59 01 FF 01 01 02'))).toEqual({ ok: true, value: 258 });
	});

	it('reads snapshots by the lengths of the vehicle’s identifiers', () => {
		const answer = bytes('59 04 40 35 13 2F 01 02 F4 0D 12 F4 42 30 D4 02 01 F4 0D 00');
		expect(parseSnapshots(answer, lengthOf)).toEqual({
			ok: true,
			value: [
				{
					record: 1,
					values: [
						{ id: 'F40D', raw: '12' },
						{ id: 'F442', raw: '30D4' }
					]
				},
				{ record: 2, values: [{ id: 'F40D', raw: '00' }] }
			]
		});
	});

	it('stops at an identifier nobody described, and at a cut value, with the place', () => {
		expect(parseSnapshots(bytes('59 04 40 35 13 2F 01 01 AB CD 00'), lengthOf)).toEqual({
			ok: false,
			error: 'identifier ABCD at byte 8 is not described for this vehicle'
		});
		expect(parseSnapshots(bytes('59 04 40 35 13 2F 01 01 F4 42 30'), lengthOf)).toEqual({
			ok: false,
			error: 'value of F442 at byte 8 is cut'
		});
	});

	it('reads extended data', () => {
		expect(parseExtended(bytes('59 06 40 35 13 2F 01 07 02 00'))).toEqual({
			ok: true,
			value: { occurrences: 7, ageingCycles: 0 }
		});
	});

	it('takes any bytes without throwing', () => {
		fc.assert(
			fc.property(fc.uint8Array({ maxLength: 64 }), (any) => {
				parseCodeList(any);
				parseCount(any);
				parseExtended(any);
				parseSnapshots(any, lengthOf);
			})
		);
	});
});
