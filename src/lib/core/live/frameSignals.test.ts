import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeFrames, frameValue, type FrameSignal } from './frameSignals';

const signal = (change: Partial<FrameSignal> = {}): FrameSignal => ({
	frameId: '4B0',
	channel: 'front_left',
	firstByte: 0,
	bits: 16,
	shift: 0,
	order: 'big',
	signed: false,
	factor: 0.01,
	offset: 0,
	only: null,
	invalid: null,
	...change
});

describe('a value in a frame', () => {
	it.each([
		['big', { order: 'big' as const }, [0x13, 0x88], 50],
		['little', { order: 'little' as const }, [0x88, 0x13], 50],
		['further on', { firstByte: 2 }, [0, 0, 0x13, 0x88], 50],
		['negative', { signed: true }, [0xff, 0x9c], -1],
		['with an offset', { factor: 1, offset: -40, bits: 8 }, [60], 20],
		['twelve bits, four below them', { bits: 12, shift: 4, factor: 1 }, [0xab, 0xcf], 0xabc],
		[
			'twelve bits, little, from bit 4',
			{ bits: 12, shift: 4, factor: 1, order: 'little' as const },
			[0xcf, 0xab],
			0xabc
		],
		['cut off', { firstByte: 7 }, [1, 2, 3, 4, 5, 6, 7, 8], null],
		['of another page', { only: { byte: 0, value: 3 }, firstByte: 1 }, [2, 0x13, 0x88], null],
		['of its page', { only: { byte: 0, value: 3 }, firstByte: 1 }, [3, 0x13, 0x88], 50],
		['not available', { invalid: 0xffff }, [0xff, 0xff], NaN]
	])('%s', (_, change, bytes, wanted) => {
		const value = frameValue(signal(change), Uint8Array.from(bytes));
		if (wanted === null || Number.isNaN(wanted)) expect(value).toEqual(wanted);
		else expect(value).toBeCloseTo(wanted, 9);
	});

	it('written with any place and width it reads back', () => {
		const places = fc.record({
			bits: fc.integer({ min: 1, max: 24 }),
			shift: fc.integer({ min: 0, max: 7 }),
			firstByte: fc.integer({ min: 0, max: 4 }),
			order: fc.constantFrom('big' as const, 'little' as const)
		});
		fc.assert(
			fc.property(places, fc.nat(), (place, number) => {
				const counts = number % 2 ** place.bits;
				const bytes = Math.ceil((place.bits + place.shift) / 8);
				const data = new Uint8Array(8);
				let rest = counts * 2 ** place.shift;
				for (let i = 0; i < bytes; i++) {
					data[place.order === 'little' ? place.firstByte + i : place.firstByte + bytes - 1 - i] = rest % 256;
					rest = Math.floor(rest / 256);
				}
				expect(frameValue(signal({ ...place, factor: 1 }), data)).toBe(counts);
			})
		);
	});
});

describe('a log of frames as a recording', () => {
	it('has each channel where its frames came, frames of one moment in one row', () => {
		const frame = (timeS: number, id: string, counts: number) => ({
			timeS,
			id,
			data: Uint8Array.of(counts >> 8, counts & 255)
		});
		const read = decodeFrames(
			[
				frame(10, '4B0', 1000),
				frame(10.001, '4B1', 1100),
				frame(10.01, '123', 5),
				frame(10.02, '4B0', 2000),
				frame(10.03, '4B1', 0xffff)
			],
			[signal(), signal({ frameId: '4B1', channel: 'front_right', invalid: 0xffff })]
		);
		expect(read.ok && [...read.value.timeS].map((t) => Number(t.toFixed(3)))).toEqual([0, 0.02, 0.03]);
		expect(read.ok && [...read.value.channels]).toEqual([
			['front_left', Float64Array.of(10, 20, NaN)],
			['front_right', Float64Array.of(11, NaN, 655.35)]
		]);
	});

	it('without any frame that is known says which were looked for', () => {
		expect(decodeFrames([], [signal()])).toEqual({ ok: false, error: 'no frame of 4B0 is in it' });
	});
});
