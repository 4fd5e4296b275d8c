/** Messages as the frames that carry them, ISO 15765-2 with normal addressing on classic CAN. */

const FRAME_BYTES = 8;
const IN_SINGLE = 7;
const IN_FIRST = 6;
/** A first frame of a longer message has its length in four more bytes. */
const IN_LONG_FIRST = 2;
const LONGEST_SHORT = 0xfff;
/** What unused bytes of a frame are filled with (ISO 15765-2, 10.4.2.2). */
const PADDING = 0xcc;

const padded = (bytes: readonly number[]): Uint8Array => {
	const frame = new Uint8Array(FRAME_BYTES).fill(PADDING);
	frame.set(bytes);
	return frame;
};

/** @param bytes at least one, up to 2³²−1 */
export function framesOf(bytes: Uint8Array): Uint8Array[] {
	const { length } = bytes;
	if (length <= IN_SINGLE) return [padded([length, ...bytes])];
	const long = length > LONGEST_SHORT;
	const head = long
		? [0x10, 0, (length >>> 24) & 0xff, (length >>> 16) & 0xff, (length >>> 8) & 0xff, length & 0xff]
		: [0x10 | (length >> 8), length & 0xff];
	let at = long ? IN_LONG_FIRST : IN_FIRST;
	const frames = [padded([...head, ...bytes.subarray(0, at)])];
	for (let sequence = 1; at < length; sequence = (sequence + 1) & 0x0f, at += IN_SINGLE)
		frames.push(padded([0x20 | sequence, ...bytes.subarray(at, at + IN_SINGLE)]));
	return frames;
}

export interface FlowControl {
	says: 'go' | 'wait' | 'overflow';
	/** Frames until the next flow control; 0 = none needed. */
	blockSize: number;
	/** Least time from one frame to the next, in milliseconds. */
	separationMs: number;
}

const SAYS = ['go', 'wait', 'overflow'] as const;
const LONGEST_SEPARATION_MS = 127;

/** Null for a frame that is no flow control, or one whose status is not defined. */
export function readFlowControl(data: Uint8Array): FlowControl | null {
	const [control = 0, blockSize = 0, separation = 0] = data;
	const says = SAYS[control & 0x0f];
	if (control >> 4 !== 3 || !says || data.length < 3) return null;
	return { says, blockSize, separationMs: separationMs(separation) };
}

/** 00–7F are milliseconds, F1–F9 tenths of one; the rest is reserved and taken as the longest (ISO 15765-2, 9.6.5.4). */
function separationMs(byte: number): number {
	if (byte <= 0x7f) return byte;
	return byte >= 0xf1 && byte <= 0xf9 ? (byte - 0xf0) / 10 : LONGEST_SEPARATION_MS;
}

export const flowControlFrame = ({ says, blockSize, separationMs }: FlowControl): Uint8Array =>
	padded([0x30 | SAYS.indexOf(says), blockSize, separationMs]);
