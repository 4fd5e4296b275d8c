/**
 * Puts messages together that were sent in segments, ISO 15765-2 with normal addressing: the first nibble of a frame says
 * whether it is a single frame, the first of several, a consecutive one, or flow control from the receiver.
 *
 * One {@link SegmentReader} follows one identifier; conversations side by side each have their own.
 */
export type SegmentTrouble =
	| 'sequence gap'
	| 'overlap'
	| 'timeout'
	| 'overflow'
	| 'bad length'
	| 'reserved frame type'
	| 'consecutive frame without a first';

export interface WholeMessage {
	/** When its first frame was seen. */
	startS: number;
	bytes: Uint8Array;
}

export interface SegmentSink {
	message(message: WholeMessage): void;
	trouble(reason: SegmentTrouble, timeS: number, detail: string): void;
}

/** Longest wait between segments (N_Cr of ISO 15765-2). */
export const SEGMENT_TIMEOUT_S = 1;
/** Messages that claim more are not believed: far above any diagnostic message, far below harm. */
const MOST_MESSAGE_BYTES = 16 * 1024 * 1024;

const enum Type {
	single = 0,
	first = 1,
	consecutive = 2,
	flow = 3
}
const FLOW_WAIT = 1;
const FLOW_OVERFLOW = 2;

export class SegmentReader {
	private buffer: Uint8Array | null = null;
	private filled = 0;
	private wanted = 0;
	private nextSequence = 0;
	private startS = 0;
	private lastS = 0;
	/** A message broke: what is left of it is passed over without a second complaint. */
	private broken = false;

	constructor(private readonly sink: SegmentSink) {}

	/** Whether a message is under way. */
	get open(): boolean {
		return this.buffer !== null;
	}

	frame(data: Uint8Array, length: number, timeS: number): void {
		if (length === 0) return;
		const control = data[0] as number;
		switch (control >> 4) {
			case Type.single:
				return this.single(data, length, timeS);
			case Type.first:
				return this.first(data, length, timeS);
			case Type.consecutive:
				return this.consecutive(data, length, timeS);
			case Type.flow:
				return;
			default:
				this.sink.trouble('reserved frame type', timeS, `a frame cannot begin with ${control >> 4}`);
		}
	}

	/** The receiver's flow control: "wait" gives the sender more time, "overflow" ends the message at once. */
	flowControl(data: Uint8Array, length: number, timeS: number): void {
		if (length === 0 || (data[0] as number) >> 4 !== Type.flow) return;
		// "Wait" begins the time for the next segment anew (N_Bs of ISO 15765-2).
		if (this.buffer && ((data[0] as number) & 0x0f) === FLOW_WAIT) this.lastS = timeS;
		if (this.buffer && ((data[0] as number) & 0x0f) === FLOW_OVERFLOW) {
			this.abandon('overflow', timeS, 'the receiver had no room for the message');
		}
	}

	/** Time goes on: a message that has waited too long is given up. */
	expire(nowS: number): void {
		if (this.buffer && nowS - this.lastS > SEGMENT_TIMEOUT_S) {
			this.abandon('timeout', this.lastS, `only ${this.filled} of ${this.wanted} bytes came`);
		}
	}

	/** The log is over. */
	end(): void {
		if (this.buffer) {
			this.abandon(
				'timeout',
				this.lastS,
				`the log ends when ${this.filled} of ${this.wanted} bytes have come`
			);
		}
	}

	private single(data: Uint8Array, length: number, timeS: number): void {
		this.expire(timeS);
		// With flexible data rate a zero nibble says that the length stands in the next byte.
		const short = (data[0] as number) & 0x0f;
		const long = short === 0 && length > 8;
		const from = long ? 2 : 1;
		const count = long ? (data[1] as number) : short;
		if (count === 0 || from + count > length) {
			this.sink.trouble('bad length', timeS, `a single frame of ${length} bytes claims ${count}`);
			return;
		}
		this.interrupt(timeS);
		this.broken = false;
		this.sink.message({ startS: timeS, bytes: data.slice(from, from + count) });
	}

	private first(data: Uint8Array, length: number, timeS: number): void {
		this.expire(timeS);
		if (length < 8) {
			this.sink.trouble('bad length', timeS, `a first frame has at least 8 bytes, this one ${length}`);
			return;
		}
		let wanted = (((data[0] as number) & 0x0f) << 8) | (data[1] as number);
		let from = 2;
		if (wanted === 0) {
			wanted = new DataView(data.buffer, data.byteOffset).getUint32(2);
			from = 6;
		}
		if (wanted <= length - from || wanted > MOST_MESSAGE_BYTES) {
			this.sink.trouble('bad length', timeS, `a message in segments cannot have ${wanted} bytes`);
			return;
		}
		this.interrupt(timeS);
		this.broken = false;
		// Never as large as it claims to be: only as large as what has come.
		this.buffer = new Uint8Array(Math.min(wanted, 4096));
		this.buffer.set(data.subarray(from, length));
		this.filled = length - from;
		this.wanted = wanted;
		this.nextSequence = 1;
		this.startS = this.lastS = timeS;
	}

	private consecutive(data: Uint8Array, length: number, timeS: number): void {
		this.expire(timeS);
		if (!this.buffer) {
			if (!this.broken)
				this.sink.trouble('consecutive frame without a first', timeS, 'its message began before the log');
			this.broken = true;
			return;
		}
		const sequence = (data[0] as number) & 0x0f;
		if (sequence !== this.nextSequence) {
			return this.abandon('sequence gap', timeS, `segment ${this.nextSequence} expected, ${sequence} came`);
		}
		const count = Math.min(length - 1, this.wanted - this.filled);
		if (count < 1) return this.abandon('bad length', timeS, 'a consecutive frame without data');
		if (this.filled + count > this.buffer.length) {
			const larger = new Uint8Array(Math.min(this.wanted, this.buffer.length * 2));
			larger.set(this.buffer);
			this.buffer = larger;
		}
		this.buffer.set(data.subarray(1, 1 + count), this.filled);
		this.filled += count;
		this.nextSequence = (sequence + 1) & 0x0f;
		this.lastS = timeS;
		if (this.filled === this.wanted) {
			const bytes = this.buffer.slice(0, this.wanted);
			this.buffer = null;
			this.sink.message({ startS: this.startS, bytes });
		}
	}

	/** A new message begins while one is under way. */
	private interrupt(timeS: number): void {
		if (this.buffer) {
			this.abandon(
				'overlap',
				timeS,
				`a new message began when ${this.filled} of ${this.wanted} bytes had come`
			);
		}
	}

	private abandon(reason: SegmentTrouble, timeS: number, detail: string): void {
		this.buffer = null;
		this.broken = true;
		this.sink.trouble(reason, timeS, detail);
	}
}
