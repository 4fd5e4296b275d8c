import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hex } from '../bytes';
import { routeOfAddress } from './canRoute';
import { SegmentedChannel } from './segmentedChannel';
import { flowControlFrame, framesOf, readFlowControl } from './segmentedMessage';
import { encodeSlcan, flagsText, readFrame, SlcanReader } from './slcan';

const ascii = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));
const bytes = (count: number) => Uint8Array.from({ length: count }, (_, i) => i & 0xff);

describe('the line protocol of a serial adapter', () => {
	it('writes a frame as its line', () => {
		expect(encodeSlcan({ id: 0x7e0, extended: false, data: Uint8Array.of(0x02, 0x3e, 0x00) })).toBe(
			't7E03023E00\r'
		);
		expect(encodeSlcan({ id: 0x18da10f1, extended: true, data: Uint8Array.of(1) })).toBe('T18DA10F1101\r');
	});

	it('reads what it writes, however it is cut into pieces', () => {
		const frame = fc
			.record({
				extended: fc.boolean(),
				id: fc.nat(0x7ff),
				data: fc.uint8Array({ maxLength: 8 })
			})
			.map((one) => ({ ...one, id: one.extended ? one.id * 0x1234 : one.id }));
		fc.assert(
			fc.property(fc.array(frame, { maxLength: 20 }), fc.integer({ min: 1, max: 7 }), (frames, piece) => {
				const text = ascii(frames.map(encodeSlcan).join(''));
				const reader = new SlcanReader();
				const read = [];
				for (let at = 0; at < text.length; at += piece) read.push(...reader.push(text.slice(at, at + piece)));
				expect(read).toEqual(frames.map((one) => ({ kind: 'frame', frame: one })));
			})
		);
	});

	it('tells what was done, what was refused, and what the adapter has to say', () => {
		const events = new SlcanReader().push(ascii('\rz\r\x07F08\rV0101\rt7E81FF12AB\r'));
		expect(events.map(({ kind }) => kind)).toEqual(['done', 'done', 'refused', 'flags', 'done', 'frame']);
		expect(events[5]).toMatchObject({ frame: { id: 0x7e8, data: Uint8Array.of(0xff) } });
		expect(flagsText(0x08)).toContain('lost frames');
		expect(flagsText(0)).toBeNull();
	});

	it('never makes a frame of a damaged line, and reads the next', () => {
		const reader = new SlcanReader();
		for (const line of [
			't7E8',
			't7E89',
			't7E8301',
			't7E8?0201',
			'tFFF0',
			'T200000000',
			'x',
			`t7E88${'0'.repeat(90)}`
		])
			expect(reader.push(ascii(`${line}\r`)), line).toMatchObject([{ kind: 'garbage' }]);
		expect(reader.push(ascii('t7E8\x07t7E8101\r')).map(({ kind }) => kind)).toEqual([
			'garbage',
			'refused',
			'frame'
		]);
		expect(readFrame('t7E8101')).toEqual({ id: 0x7e8, extended: false, data: Uint8Array.of(1) });
	});
});

describe('messages in segments (ISO 15765-2)', () => {
	it.each([
		[1, ['0100CCCCCCCCCCCC']],
		[7, ['0700010203040506']],
		[8, ['1008000102030405', '210607CCCCCCCCCC']],
		[13, ['100D000102030405', '21060708090A0B0C']],
		[20, ['1014000102030405', '21060708090A0B0C', '220D0E0F10111213']]
	])('%i bytes', (count, frames) => {
		expect(framesOf(bytes(count)).map(hex)).toEqual(frames);
	});

	it('counts segments on from 15 to 0, and writes long lengths in four bytes', () => {
		const frames = framesOf(bytes(4095));
		expect(hex(frames[0] as Uint8Array).slice(0, 4)).toBe('1FFF');
		expect([14, 15, 16, 17].map((nth) => frames[nth]?.[0])).toEqual([0x2e, 0x2f, 0x20, 0x21]);
		expect(hex(framesOf(bytes(4096))[0] as Uint8Array)).toBe('1000000010000001');
	});

	it('reads flow control: what it says, blocks, and times in the units of the standard', () => {
		expect(readFlowControl(Uint8Array.of(0x30, 8, 20))).toEqual({
			says: 'go',
			blockSize: 8,
			separationMs: 20
		});
		expect(readFlowControl(Uint8Array.of(0x31, 0, 0))?.says).toBe('wait');
		expect(readFlowControl(Uint8Array.of(0x32, 0, 0))?.says).toBe('overflow');
		expect(readFlowControl(Uint8Array.of(0x30, 0, 0xf3))?.separationMs).toBeCloseTo(0.3);
		// Reserved times are taken as the longest there is.
		expect(readFlowControl(Uint8Array.of(0x30, 0, 0x90))?.separationMs).toBe(127);
		expect(readFlowControl(Uint8Array.of(0x33, 0, 0))).toBeNull();
		expect(readFlowControl(Uint8Array.of(0x21, 0, 0))).toBeNull();
	});
});

/** A clock that is moved by hand, and two ends of one conversation on it. */
function bench(
	asks: { blockSize: number; separationMs: number },
	onFrame?: (data: Uint8Array) => Uint8Array[]
) {
	let nowMs = 0;
	const timers = new Set<{ atMs: number; act: () => void }>();
	const queue: (() => void)[] = [];
	const log: string[] = [];
	const received: Uint8Array[] = [];
	const after = (ms: number, act: () => void) => {
		const timer = { atMs: nowMs + ms, act };
		timers.add(timer);
		return () => timers.delete(timer);
	};
	const endpoint = (to: () => SegmentedChannel, name: string, asked = asks) =>
		new SegmentedChannel(
			{
				send: (data) => {
					log.push(`${nowMs} ${name} ${hex(data)}`);
					for (const passed of name === 'sender' && onFrame ? onFrame(data) : [data])
						queue.push(() => to().frame(passed));
				},
				after,
				nowS: () => nowMs / 1000,
				message: (message) => received.push(message),
				trouble: (reason) => log.push(`${nowMs} ${name}: ${reason}`)
			},
			asked
		);
	const sender: SegmentedChannel = endpoint(() => receiver, 'sender');
	const receiver: SegmentedChannel = endpoint(() => sender, 'receiver');
	const run = (untilMs: number) => {
		for (;;) {
			const act = queue.shift();
			if (act) {
				act();
				continue;
			}
			const [next] = [...timers].sort((a, b) => a.atMs - b.atMs);
			if (!next || next.atMs > untilMs) break;
			timers.delete(next);
			nowMs = next.atMs;
			next.act();
		}
		nowMs = untilMs;
	};
	return { sender, receiver, received, log, run };
}

describe('a conversation in segments', () => {
	it('brings any message over whole, in the rhythm that the receiver asks for', () => {
		fc.assert(
			fc.property(
				fc.uint8Array({ minLength: 1, maxLength: 600 }),
				fc.nat(12),
				fc.nat(5),
				(message, blockSize, separationMs) => {
					const { sender, received, run } = bench({ blockSize, separationMs });
					let told: string | null | undefined;
					sender.transmit(message, (error) => (told = error));
					run(60_000);
					expect(told).toBeNull();
					expect(received).toEqual([message]);
				}
			)
		);
	});

	it('sends a block, waits for the next permission, and keeps the time between two', () => {
		const { sender, log, run } = bench({ blockSize: 2, separationMs: 10 });
		sender.transmit(bytes(30), () => undefined);
		run(1000);
		expect(log).toEqual([
			'0 sender 101E000102030405',
			'0 receiver 30020ACCCCCCCCCC',
			'0 sender 21060708090A0B0C',
			'10 sender 220D0E0F10111213',
			'10 receiver 30020ACCCCCCCCCC',
			'10 sender 231415161718191A',
			'20 sender 241B1C1DCCCCCCCC'
		]);
	});

	it('gives a receiver more time that asks for it, and up when it never ends or has no room', () => {
		const outcome = (answers: Uint8Array[]) => {
			const { sender, run } = bench({ blockSize: 0, separationMs: 0 }, () => []);
			let told: string | null | undefined;
			sender.transmit(bytes(9), (error) => (told = error));
			for (const answer of answers) sender.frame(answer);
			run(5000);
			return told;
		};
		const says = (what: 'go' | 'wait' | 'overflow') =>
			flowControlFrame({ says: what, blockSize: 0, separationMs: 0 });
		expect(outcome([says('wait'), says('wait'), says('go')])).toBeNull();
		expect(outcome([says('overflow')])).toContain('no room');
		expect(outcome(Array.from({ length: 25 }, () => says('wait')))).toContain('more time');
		expect(outcome([])).toContain('no flow control');
	});

	it('says what broke, and takes the next message, when frames are lost, doubled or come too late', () => {
		fc.assert(
			fc.property(
				fc.uint8Array({ minLength: 8, maxLength: 200 }),
				fc.array(fc.constantFrom('pass', 'drop', 'double'), { minLength: 1, maxLength: 30 }),
				(message, fates) => {
					let nth = 0;
					const spoiled = bench({ blockSize: 4, separationMs: 0 }, (data) => {
						const fate = nth < fates.length ? fates[nth++] : 'pass';
						return fate === 'drop' ? [] : fate === 'double' ? [data, data] : [data];
					});
					spoiled.sender.transmit(message, () => undefined);
					spoiled.run(10_000);
					// Whatever befell it: what came is the message or nothing.
					for (const whole of spoiled.received) expect(whole).toEqual(message);
					nth = fates.length;
					spoiled.received.length = 0;
					spoiled.sender.transmit(message, () => undefined);
					spoiled.run(20_000);
					expect(spoiled.received).toEqual([message]);
				}
			)
		);
	});
});

describe('identifiers of an address', () => {
	it('are of 29 bits for one byte, of 11 for 0700 to 07F7, and none for others', () => {
		expect(routeOfAddress(0x10)).toEqual({ request: 0x18da10f1, response: 0x18daf110, extended: true });
		expect(routeOfAddress(0x7e0)).toEqual({ request: 0x7e0, response: 0x7e8, extended: false });
		expect(routeOfAddress(0x1010)).toBeNull();
		expect(routeOfAddress(0x7f8)).toBeNull();
	});
});
