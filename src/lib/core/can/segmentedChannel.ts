import { SegmentReader, SEGMENT_TIMEOUT_S, type SegmentTrouble } from '../bus/segments';
import { flowControlFrame, framesOf, readFlowControl, type FlowControl } from './segmentedMessage';

/** Longest wait for flow control (N_Bs of ISO 15765-2), in milliseconds. */
const FLOW_TIMEOUT_MS = 1000;
/** A receiver that asks for more time than so often never takes the message. */
const MOST_WAITS = 20;

export interface ChannelDoor {
	/** Puts one frame on the bus. */
	send(data: Uint8Array): void;
	/** Runs something later; what it returns calls it off. */
	after(ms: number, act: () => void): () => void;
	nowS(): number;
	message(bytes: Uint8Array): void;
	trouble(reason: SegmentTrouble, detail: string): void;
}

interface Sending {
	frames: Uint8Array[];
	next: number;
	/** Frames until flow control must come again; null = no more needed. */
	left: number | null;
	separationMs: number;
	waits: number;
	done: (error: string | null) => void;
}

/**
 * One conversation in segments, ISO 15765-2: messages of any length out, in the rhythm that the receiver asks for, and
 * messages in, asking for them in ours. Knows no sockets and no clock of its own.
 */
export class SegmentedChannel {
	private readonly reader: SegmentReader;
	private sending: Sending | null = null;
	private timer: (() => void) | null = null;
	private patience: (() => void) | null = null;
	/** Segments since we asked for more. */
	private inBlock = 0;

	/** @param asks how we want to be sent to: frames a block (0 = all at once) and the time between two */
	constructor(
		private readonly door: ChannelDoor,
		private readonly asks: Pick<FlowControl, 'blockSize' | 'separationMs'>
	) {
		this.reader = new SegmentReader({
			message: ({ bytes }) => door.message(bytes),
			trouble: (reason, _atS, detail) => door.trouble(reason, detail)
		});
	}

	/** Sends a message. @param done told once, with what went wrong or null */
	transmit(bytes: Uint8Array, done: (error: string | null) => void): void {
		this.stop('another message was to be sent');
		const frames = framesOf(bytes);
		this.door.send(frames[0] as Uint8Array);
		if (frames.length === 1) return done(null);
		this.sending = { frames, next: 1, left: null, separationMs: 0, waits: 0, done };
		this.awaitFlow();
	}

	/** A frame from the other side. */
	frame(data: Uint8Array): void {
		const [control = 0] = data;
		if (control >> 4 === 3) return this.flow(data);
		this.reader.frame(data, data.length, this.door.nowS());
		this.patience?.();
		this.patience = null;
		if (!this.reader.open) return;
		this.patience = this.door.after(SEGMENT_TIMEOUT_S * 1000 + 1, () => this.reader.expire(this.door.nowS()));
		const begins = control >> 4 === 1;
		this.inBlock = begins ? 0 : this.inBlock + 1;
		if (begins || this.inBlock === this.asks.blockSize) {
			this.inBlock = 0;
			this.door.send(flowControlFrame({ says: 'go', ...this.asks }));
		}
	}

	/** Nothing more is sent and nothing more is waited for. */
	close(): void {
		this.stop('the connection was closed');
		this.patience?.();
		this.patience = null;
	}

	private flow(data: Uint8Array): void {
		const { sending } = this;
		const told = readFlowControl(data);
		if (!sending || !told) return;
		if (told.says === 'overflow') return this.stop('the receiver has no room for the message');
		if (told.says === 'wait') {
			sending.waits += 1;
			if (sending.waits > MOST_WAITS) return this.stop('the receiver only asks for more time');
			return this.awaitFlow();
		}
		// A flow control that was not asked for, such as one that came twice, changes nothing.
		if (sending.left !== 0 && sending.next > 1) return;
		sending.left = told.blockSize === 0 ? null : told.blockSize;
		sending.separationMs = told.separationMs;
		this.step();
	}

	/** Sends what may be sent now. */
	private step(): void {
		for (let { sending } = this; sending; { sending } = this) {
			this.timer?.();
			this.timer = null;
			this.door.send(sending.frames[sending.next] as Uint8Array);
			sending.next += 1;
			if (sending.next === sending.frames.length) return this.finish(null);
			if (sending.left !== null) sending.left -= 1;
			if (sending.left === 0) return this.awaitFlow();
			if (sending.separationMs > 0) {
				this.timer = this.door.after(sending.separationMs, () => this.step());
				return;
			}
		}
	}

	private awaitFlow(): void {
		this.timer?.();
		this.timer = this.door.after(FLOW_TIMEOUT_MS, () => this.stop('the receiver gave no flow control'));
	}

	private stop(why: string): void {
		if (this.sending) this.finish(why);
	}

	private finish(error: string | null): void {
		this.timer?.();
		this.timer = null;
		const { done } = this.sending as Sending;
		this.sending = null;
		done(error);
	}
}
