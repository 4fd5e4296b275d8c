import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DoipReader, encodeDiagnostic, encodeDoip, PayloadType } from './doip';

describe('framing of diagnostics over TCP', () => {
	it('writes the header as the standard lays it out', () => {
		expect([...encodeDiagnostic(0x0e80, 0x1010, [0x3e, 0x00])]).toEqual([
			0x02, 0xfd, 0x80, 0x01, 0, 0, 0, 6, 0x0e, 0x80, 0x10, 0x10, 0x3e, 0x00
		]);
	});

	it('finds the same messages however the stream is cut', () => {
		const message = fc.record({
			type: fc.integer({ min: 0, max: 0xffff }),
			payload: fc.uint8Array({ maxLength: 40 })
		});
		fc.assert(
			fc.property(
				fc.array(message, { maxLength: 8 }),
				fc.infiniteStream(fc.integer({ min: 1, max: 9 })),
				(sent, cuts) => {
					const stream = Uint8Array.from(sent.flatMap((m) => [...encodeDoip(m.type, m.payload)]));
					const reader = new DoipReader();
					const got = [];
					for (let at = 0; at < stream.length;) {
						const size = cuts.next().value ?? 1;
						const { messages, error } = reader.push(stream.slice(at, at + size));
						expect(error).toBeNull();
						got.push(...messages);
						at += size;
					}
					expect(got.map((m) => ({ type: m.type, payload: [...m.payload] }))).toEqual(
						sent.map((m) => ({ type: m.type, payload: [...m.payload] }))
					);
				}
			)
		);
	});

	it('gives up on garbage and on absurd lengths, without throwing on any bytes', () => {
		expect(
			new DoipReader().push(Uint8Array.from([0x47, 0x45, 0x54, 0x20, 0x2f, 0x20, 0x48, 0x54])).error
		).toEqual({
			nack: 0,
			reason: 'bytes that are no diagnostic header'
		});
		const huge = Uint8Array.from([0x02, 0xfd, 0x80, 0x01, 0x7f, 0xff, 0xff, 0xff]);
		expect(new DoipReader().push(huge).error?.nack).toBe(2);
		fc.assert(fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => void new DoipReader().push(bytes)));
	});

	it('keeps what came whole before the garbage', () => {
		const good = encodeDoip(PayloadType.aliveCheckRequest, []);
		const { messages, error } = new DoipReader().push(Uint8Array.from([...good, ...new Array(8).fill(0xff)]));
		expect(messages).toHaveLength(1);
		expect(error).not.toBeNull();
	});
});
