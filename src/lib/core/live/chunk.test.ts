import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeChunk, encodeChunk, joinChunks, type Chunk } from './chunk';

const chunk = (rows: number, from = 0): Chunk => ({
	timeS: Float64Array.from({ length: rows }, (_, i) => from + i / 20),
	channels: new Map([
		['front_left', Float64Array.from({ length: rows }, (_, i) => 50 + Math.round(Math.sin(i) * 10) / 100)],
		['supply', new Float64Array(rows).fill(12.6)]
	])
});

describe('a piece of a recording', () => {
	it('comes back as it was, whatever numbers it holds', () => {
		const numbers = fc.array(fc.double(), { maxLength: 60 });
		fc.assert(
			fc.property(numbers, (list) => {
				const column = Float64Array.from(list);
				const whole = { timeS: column.map((_, i) => i), channels: new Map([['rear_right', column]]) };
				expect(decodeChunk(encodeChunk(whole))).toEqual({ ok: true, value: whole });
			})
		);
	});

	it('takes less than a fourth of the room for a minute of even driving', () => {
		const minute = chunk(1200);
		expect(encodeChunk(minute).length).toBeLessThan((1200 * 8 * 3) / 4);
	});

	it('joined, has every row once and no value where a channel was missing', () => {
		const second = chunk(3, 1);
		second.channels.delete('supply');
		const joined = joinChunks([chunk(2), second]);
		expect([...joined.timeS]).toEqual([0, 0.05, 1, 1.05, 1.1]);
		expect([...(joined.channels.get('supply') ?? [])]).toEqual([12.6, 12.6, NaN, NaN, NaN]);
	});

	it('damaged or foreign, is refused with a reason', () => {
		const good = encodeChunk(chunk(40));
		expect(decodeChunk(good.slice(0, good.length - 9)).ok).toBe(false);
		expect(decodeChunk(Uint8Array.of(1, 2, 3))).toMatchObject({ ok: false, error: /JLC1/ });
		fc.assert(fc.property(fc.uint8Array({ maxLength: 90 }), (bytes) => void decodeChunk(bytes)));
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: good.length - 1 }),
				fc.integer({ min: 1, max: 255 }),
				(at, by) => {
					const bad = good.slice();
					bad[at] = (bad[at] ?? 0) ^ by;
					void decodeChunk(bad);
				}
			)
		);
	});
});
