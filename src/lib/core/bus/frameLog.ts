/**
 * Reads capture logs, one frame a line: `(seconds.micros) interface ID#HEXDATA`; `ID##FHEX` is a frame with flexible data
 * rate and its flags, `ID#R` or `ID#R8` a remote frame, a trailing ` R` or ` T` the direction. Bytes in, frames out, in
 * pieces of any size: only the line that a piece ends in is kept.
 */

/** The frame just read. The reader fills the same object again for the next one: copy what is to be kept. */
export interface Frame {
	/** Seconds on the log's own clock. */
	timeS: number;
	/** Which interface, counted from 0 in order of appearance. */
	channel: number;
	id: number;
	/** 29-bit identifier. */
	extended: boolean;
	remote: boolean;
	/** The first `length` bytes count. */
	data: Uint8Array;
	length: number;
}

export interface BadLine {
	/** From 1. */
	line: number;
	reason: string;
}

export interface FrameLogSink {
	frame(frame: Frame): void;
	badLine(bad: BadLine): void;
}

const NEWLINE = 10;
const RETURN = 13;
const SPACE = 32;
const TAB = 9;
const HASH = 35;
const OPEN = 40;
const CLOSE = 41;
const DOT = 46;
const ZERO = 48;
const LETTER_R = 82;
const LETTER_T = 84;

/** A line longer than this is no frame of any kind. */
const LONGEST_LINE = 512;
/** Digits of the seconds: more would not be told apart by their microseconds. */
const LONGEST_SECONDS = 12;
const MOST_CLASSIC_BYTES = 8;
const MOST_BYTES = 64;
const MAX_STANDARD_ID = 0x7ff;
const MAX_EXTENDED_ID = 0x1fffffff;
/** Set in the identifier of a line by which the interface tells of a fault on the bus itself. */
const ERROR_FRAME_FLAG = 0x20000000;

/** Value of a hex digit by its character code, 255 for anything else. */
const NIBBLE = new Uint8Array(256).fill(255);
for (let value = 0; value < 16; value++) {
	const digit = value.toString(16);
	NIBBLE[digit.charCodeAt(0)] = value;
	NIBBLE[digit.toUpperCase().charCodeAt(0)] = value;
}

const EXPECTED_WHOLE = 'expected (seconds) interface ID#DATA';
const isBlank = (byte: number) => byte === SPACE || byte === TAB || byte === RETURN;

export class FrameLogReader {
	private readonly frame: Frame = {
		timeS: 0,
		channel: 0,
		id: 0,
		extended: false,
		remote: false,
		data: new Uint8Array(MOST_BYTES),
		length: 0
	};
	/** The beginning of a line whose end has not come yet. */
	private held = new Uint8Array(0);
	/** The rest of a line that is already known to be too long is passed over. */
	private skipping = false;
	private readonly channels: string[] = [];
	private lastChannel = new Uint8Array(0);
	private lastChannelIndex = -1;
	lines = 0;
	frames = 0;

	constructor(private readonly sink: FrameLogSink) {}

	/** Names of the interfaces, in order of appearance. */
	get interfaces(): readonly string[] {
		return this.channels;
	}

	push(chunk: Uint8Array): void {
		let start = 0;
		if (this.held.length > 0 || this.skipping) {
			const end = chunk.indexOf(NEWLINE);
			if (end === -1) return this.hold(chunk);
			const whole = new Uint8Array(this.held.length + end);
			whole.set(this.held);
			whole.set(chunk.subarray(0, end), this.held.length);
			this.held = new Uint8Array(0);
			if (this.skipping) this.skipping = false;
			else this.line(whole, 0, whole.length);
			start = end + 1;
		}
		for (;;) {
			const end = chunk.indexOf(NEWLINE, start);
			if (end === -1) break;
			this.line(chunk, start, end);
			start = end + 1;
		}
		if (start < chunk.length) this.hold(chunk.subarray(start));
	}

	/** The log is over: a last line without its end is read as it stands. */
	end(): void {
		if (this.held.length > 0 && !this.skipping) this.line(this.held, 0, this.held.length);
		this.held = new Uint8Array(0);
		this.skipping = false;
	}

	private hold(rest: Uint8Array): void {
		if (this.skipping) return;
		if (this.held.length + rest.length > LONGEST_LINE) {
			this.lines++;
			this.sink.badLine({ line: this.lines, reason: `longer than ${LONGEST_LINE} signs; ${EXPECTED_WHOLE}` });
			this.skipping = true;
			this.held = new Uint8Array(0);
			return;
		}
		const joined = new Uint8Array(this.held.length + rest.length);
		joined.set(this.held);
		joined.set(rest, this.held.length);
		this.held = joined;
	}

	private line(bytes: Uint8Array, start: number, end: number): void {
		this.lines++;
		let last = end;
		while (last > start && isBlank(bytes[last - 1] as number)) last--;
		let first = start;
		while (first < last && isBlank(bytes[first] as number)) first++;
		if (first === last) return;
		const reason =
			last - first > LONGEST_LINE
				? `longer than ${LONGEST_LINE} signs; ${EXPECTED_WHOLE}`
				: this.parse(bytes, first, last);
		if (reason === null) {
			this.frames++;
			this.sink.frame(this.frame);
		} else this.sink.badLine({ line: this.lines, reason: `column ${this.at - start + 1}: ${reason}` });
	}

	/** Where the parser stands; after a refusal, where it stumbled. */
	private at = 0;

	/** Fills the frame from one line; returns what was expected where it does not fit, null if it does. */
	private parse(bytes: Uint8Array, start: number, end: number): string | null {
		this.at = start;
		if (bytes[this.at] !== OPEN) return EXPECTED_WHOLE;
		this.at++;
		const time = this.number(bytes, end);
		if (Number.isNaN(time)) return 'expected seconds, such as 0.001000';
		if (bytes[this.at] !== CLOSE) return 'expected ) after the seconds';
		this.at++;
		if (!this.blanks(bytes, end)) return 'expected a space after the time';
		const channelAt = this.at;
		while (this.at < end && !isBlank(bytes[this.at] as number)) this.at++;
		const channelEnd = this.at;
		if (!this.blanks(bytes, end)) return 'expected an identifier after the interface';

		const idAt = this.at;
		let id = 0;
		let at = idAt;
		for (; at < end; at++) {
			const nibble = NIBBLE[bytes[at] as number] as number;
			if (nibble === 255) break;
			id = id * 16 + nibble;
		}
		this.at = at;
		const digits = at - idAt;
		if (bytes[this.at] !== HASH) return 'expected # after the identifier';
		if (digits !== 3 && digits !== 8) return this.back(idAt, 'expected an identifier of 3 or 8 hex digits');
		const errorFrame = digits === 8 && id >= ERROR_FRAME_FLAG && id <= ERROR_FRAME_FLAG + MAX_EXTENDED_ID;
		if (digits === 3 && id > MAX_STANDARD_ID) return this.back(idAt, 'an 11-bit identifier goes up to 7FF');
		if (digits === 8 && id > MAX_EXTENDED_ID && !errorFrame)
			return this.back(idAt, 'a 29-bit identifier goes up to 1FFFFFFF');
		this.at++;

		const { frame } = this;
		frame.timeS = time;
		frame.id = id;
		frame.extended = digits === 8;
		frame.remote = false;
		frame.length = 0;
		const flexible = bytes[this.at] === HASH;
		if (flexible) {
			this.at++;
			if (this.at >= end || NIBBLE[bytes[this.at] as number] === 255)
				return 'expected the flags, one hex digit, after ##';
			this.at++;
		}
		if (!flexible && bytes[this.at] === LETTER_R && !errorFrame) {
			frame.remote = true;
			this.at++;
			if (this.at < end && (bytes[this.at] as number) >= ZERO && (bytes[this.at] as number) <= ZERO + 8)
				this.at++;
		} else {
			const reason = this.bytes(bytes, end, flexible ? MOST_BYTES : MOST_CLASSIC_BYTES);
			if (reason) return reason;
		}
		const reason = this.tail(bytes, end);
		if (reason) return reason;
		frame.channel = this.channelOf(bytes, channelAt, channelEnd);
		return null;
	}

	private bytes(bytes: Uint8Array, end: number, most: number): string | null {
		const { data } = this.frame;
		let { at } = this;
		let length = 0;
		let reason: string | null = null;
		while (at < end) {
			const high = NIBBLE[bytes[at] as number] as number;
			if (high === 255) break;
			const low = at + 1 < end ? (NIBBLE[bytes[at + 1] as number] as number) : 255;
			if (low === 255) {
				at++;
				reason = 'expected the second hex digit of this byte';
				break;
			}
			if (length === most) {
				reason = `expected at most ${most} bytes of data`;
				break;
			}
			data[length++] = (high << 4) | low;
			at += 2;
		}
		this.at = at;
		this.frame.length = length;
		return reason;
	}

	/** After the data only a direction may stand. */
	private tail(bytes: Uint8Array, end: number): string | null {
		if (this.at === end) return null;
		if (!this.blanks(bytes, end)) return 'expected a hex digit';
		const direction = bytes[this.at];
		if (this.at === end - 1 && (direction === LETTER_R || direction === LETTER_T)) return null;
		return 'expected the end of the line';
	}

	private back(at: number, reason: string): string {
		this.at = at;
		return reason;
	}

	private blanks(bytes: Uint8Array, end: number): boolean {
		const from = this.at;
		while (this.at < end && isBlank(bytes[this.at] as number)) this.at++;
		return this.at > from && this.at < end;
	}

	/** Decimal digits with an optional fraction of up to nine digits, as a number; NaN where there is none. */
	private number(bytes: Uint8Array, end: number): number {
		const from = this.at;
		let at = from;
		let whole = 0;
		for (; at < end; at++) {
			const digit = (bytes[at] as number) - ZERO;
			if (digit < 0 || digit > 9) break;
			whole = whole * 10 + digit;
		}
		this.at = at;
		if (at === from || at - from > LONGEST_SECONDS) return NaN;
		if (bytes[at] !== DOT) return whole;
		at++;
		let fraction = 0;
		let scale = 1;
		for (; at < end && scale < 1e9; at++) {
			const digit = (bytes[at] as number) - ZERO;
			if (digit < 0 || digit > 9) break;
			fraction = fraction * 10 + digit;
			scale *= 10;
		}
		this.at = at;
		return scale === 1 ? NaN : whole + fraction / scale;
	}

	private channelOf(bytes: Uint8Array, from: number, to: number): number {
		const { lastChannel } = this;
		let same = lastChannel.length === to - from;
		for (let i = 0; same && i < lastChannel.length; i++) same = lastChannel[i] === bytes[from + i];
		if (same) return this.lastChannelIndex;
		const name = String.fromCharCode(...bytes.subarray(from, to));
		let index = this.channels.indexOf(name);
		if (index === -1) index = this.channels.push(name) - 1;
		this.lastChannel = bytes.slice(from, to);
		this.lastChannelIndex = index;
		return index;
	}
}

/** An identifier as the logs write it: 3 digits for 11 bits, 8 for 29. */
export const idText = (id: number, extended: boolean): string =>
	id
		.toString(16)
		.toUpperCase()
		.padStart(extended ? 8 : 3, '0');
