import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tellsOfFault } from '../codes/status';
import { proveCode, type CodeEvent, type Verdict } from './codeVerdict';

const read = (
	at: number,
	status: number | null,
	snapshotKmh: number | null = null,
	availabilityMask = 0xff
): CodeEvent => ({
	at,
	kind: 'read',
	status,
	availabilityMask,
	snapshotKmh
});
const did = (at: number, kind: 'mended' | 'cleared' | 'key-cycled' | 'driven'): CodeEvent => ({ at, kind });
const RECORDED = read(1, 0x2f);
const REPAIRED = [RECORDED, did(2, 'mended'), did(3, 'cleared'), did(4, 'key-cycled')];

describe('what may be called proven', () => {
	const table: [string, CodeEvent[], Verdict][] = [
		['recorded only', [RECORDED], 'never-cleared'],
		['recorded and mended', [RECORDED, did(2, 'mended')], 'never-cleared'],
		['cleared, nothing since', [RECORDED, did(2, 'mended'), did(3, 'cleared')], 'test-not-run'],
		[
			'key not cycled, though its test ran',
			[RECORDED, did(2, 'mended'), did(3, 'cleared'), read(5, null)],
			'test-not-run'
		],
		[
			'read before the key cycle only',
			[...REPAIRED.slice(0, 3), read(3.5, 0x00), did(4, 'key-cycled')],
			'test-not-run'
		],
		['module says not completed', [...REPAIRED, read(5, 0x50)], 'test-not-run'],
		['module cannot say', [...REPAIRED, read(5, null, null, 0x2f)], 'test-not-run'],
		['completed and away', [...REPAIRED, read(5, 0x50), did(6, 'driven'), read(7, 0x00)], 'proven-clear'],
		['completed, no longer listed', [...REPAIRED, did(6, 'driven'), read(7, null)], 'proven-clear'],
		['completed this time, not yet in this key cycle', [...REPAIRED, read(7, 0x40)], 'proven-clear'],
		[
			'away, but nothing was mended',
			[RECORDED, did(3, 'cleared'), did(4, 'key-cycled'), read(5, 0)],
			'quiet-nothing-mended'
		],
		['back standing still', [...REPAIRED, read(5, 0x2f, 0)], 'back-at-key-on'],
		['back with a snapshot at speed', [...REPAIRED, read(5, 0x2f, 58)], 'back-while-driving'],
		['back after a drive, no snapshot', [...REPAIRED, did(5, 'driven'), read(6, 0x28)], 'back-while-driving'],
		['back before the drive, no snapshot', [...REPAIRED, read(5, 0x28), did(6, 'driven')], 'back-at-key-on'],
		['failed since the clear, though quiet now', [...REPAIRED, read(5, 0x20, 0)], 'back-at-key-on'],
		['not there before', [did(3, 'cleared'), did(4, 'key-cycled'), read(5, 0x2f, 0)], 'new'],
		[
			'came back, mended again, cleared again, proven',
			[...REPAIRED, read(5, 0x2f, 0), did(6, 'mended'), did(7, 'cleared'), did(8, 'key-cycled'), read(9, 0)],
			'proven-clear'
		],
		[
			'came back, cleared again without another repair',
			[...REPAIRED, read(5, 0x2f, 0), did(7, 'cleared'), did(8, 'key-cycled'), read(9, 0)],
			'quiet-nothing-mended'
		],
		[
			'first seen between two clears, then mended and proven',
			[did(0, 'cleared'), ...REPAIRED, read(9, 0)],
			'proven-clear'
		]
	];
	it.each(table)('%s', (_name, events, verdict) => {
		expect(proveCode(events).verdict).toBe(verdict);
	});

	it('is decided by the status byte in all 256 cases: any fault bit is a return, bit 4 alone keeps it unproven', () => {
		for (let status = 0; status < 256; status++) {
			const { verdict } = proveCode([...REPAIRED, read(5, status, 0)]);
			const expected = tellsOfFault(status)
				? 'back-at-key-on'
				: status & 0x10
					? 'test-not-run'
					: 'proven-clear';
			expect(verdict).toBe(expected);
		}
	});

	it('never proves anything whose marks are not all good', () => {
		const event = fc.oneof(
			fc
				.record({
					at: fc.nat(50),
					status: fc.option(fc.nat(255)),
					kmh: fc.option(fc.nat(90)),
					mask: fc.constantFrom(0xff, 0x2f)
				})
				.map((r) => read(r.at, r.status, r.kmh, r.mask)),
			fc
				.tuple(
					fc.nat(50),
					fc.constantFrom('mended', 'cleared', 'key-cycled', 'driven') as fc.Arbitrary<'mended'>
				)
				.map(([at, kind]) => did(at, kind))
		);
		fc.assert(
			fc.property(fc.array(event, { maxLength: 14 }), (events) => {
				const proof = proveCode(events);
				const allGood = Object.values(proof.marks).every((mark) => mark === 'good');
				expect(proof.verdict === 'proven-clear' ? allGood : true).toBe(true);
				expect(proof.because).not.toBe('');
			})
		);
	});
});
