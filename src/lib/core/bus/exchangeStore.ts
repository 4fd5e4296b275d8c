import { hex } from '../bytes';
import { NEGATIVE, negativeResponseText } from '../uds/negativeResponse';
import { requestText } from '../uds/services';
import { idText } from './frameLog';

/** One request and its final answer, as the `bus` command writes it. */
export interface Exchange {
	/** Seconds from the first frame of the log to the first frame of the request (of the answer, where there is none). */
	timeS: number;
	/** Null when the log holds only the answer. */
	requestId: string | null;
	/** Where the answer came from, or where it would have come from; null for a request to all that nobody answered. */
	responseId: string | null;
	request: string | null;
	response: string | null;
	service: string;
	negative: { nrc: string; text: string } | null;
	/** How often the module said that it is still working. */
	waits: number;
}

const NONE = 0xffffffff;
const FIRST_ROOM = 256;

/** One row of numbers for each exchange. */
const ROW = {
	request: 0,
	requestLength: 1,
	response: 2,
	responseLength: 3,
	requestId: 4,
	responseId: 5,
	waits: 6,
	extended: 7
};
const ROW_LENGTH = 8;

/**
 * Keeps the exchanges of a long log in two growing arrays instead of an object each: a capture of gigabytes full of
 * diagnostics costs less memory than its own text. Objects are made when they are asked for.
 */
export class ExchangeStore {
	private rows = new Uint32Array(FIRST_ROOM * ROW_LENGTH);
	private times = new Float64Array(FIRST_ROOM);
	private bytes = new Uint8Array(FIRST_ROOM * 16);
	private used = 0;
	length = 0;

	/** Adds a request without an answer so far. Returns its number. */
	add(
		timeS: number,
		requestId: number | null,
		responseId: number | null,
		extended: boolean,
		request: Uint8Array | null
	): number {
		if (this.length === this.times.length) {
			this.times = grown(this.times, Float64Array);
			this.rows = grown(this.rows, Uint32Array);
		}
		const index = this.length++;
		this.times[index] = timeS;
		const at = index * ROW_LENGTH;
		this.rows[at + ROW.request] = request ? this.keep(request) : NONE;
		this.rows[at + ROW.requestLength] = request?.length ?? 0;
		this.rows[at + ROW.response] = NONE;
		this.rows[at + ROW.requestId] = requestId ?? NONE;
		this.rows[at + ROW.responseId] = responseId ?? NONE;
		this.rows[at + ROW.waits] = 0;
		this.rows[at + ROW.extended] = extended ? 1 : 0;
		return index;
	}

	answer(index: number, responseId: number, response: Uint8Array): void {
		const at = index * ROW_LENGTH;
		this.rows[at + ROW.response] = this.keep(response);
		this.rows[at + ROW.responseLength] = response.length;
		this.rows[at + ROW.responseId] = responseId;
	}

	/** The module said that it is still working. */
	wait(index: number): void {
		this.rows[index * ROW_LENGTH + ROW.waits]!++;
	}

	/** A second answer to the same request, from another module. */
	again(index: number, responseId: number): number {
		const at = index * ROW_LENGTH;
		const from = this.rows[at + ROW.request] as number;
		const request =
			from === NONE ? null : this.bytes.slice(from, from + (this.rows[at + ROW.requestLength] as number));
		return this.add(
			this.times[index] as number,
			this.rows[at + ROW.requestId] as number,
			responseId,
			this.rows[at + ROW.extended] === 1,
			request
		);
	}

	at(index: number): Exchange {
		const at = index * ROW_LENGTH;
		const extended = this.rows[at + ROW.extended] === 1;
		const id = (place: number) => {
			const value = this.rows[at + place] as number;
			return value === NONE ? null : idText(value, extended);
		};
		const request = this.message(at + ROW.request, at + ROW.requestLength);
		const response = this.message(at + ROW.response, at + ROW.responseLength);
		const nrc = response && response[0] === NEGATIVE ? (response[2] ?? 0) : null;
		const asked =
			request ?? (response ? Uint8Array.of((response[0] ?? 0) - 0x40, response[1] ?? 0) : new Uint8Array(0));
		return {
			timeS: this.times[index] as number,
			requestId: id(ROW.requestId),
			responseId: id(ROW.responseId),
			request: request && hex(request),
			response: response && hex(response),
			service: requestText(asked),
			negative: nrc === null ? null : { nrc: hex(Uint8Array.of(nrc)), text: negativeResponseText(nrc) },
			waits: this.rows[at + ROW.waits] as number
		};
	}

	*[Symbol.iterator](): Generator<Exchange> {
		for (let index = 0; index < this.length; index++) yield this.at(index);
	}

	private message(from: number, length: number): Uint8Array | null {
		const start = this.rows[from] as number;
		return start === NONE ? null : this.bytes.subarray(start, start + (this.rows[length] as number));
	}

	private keep(message: Uint8Array): number {
		const at = this.used;
		while (at + message.length > this.bytes.length) this.bytes = grown(this.bytes, Uint8Array);
		this.bytes.set(message, at);
		this.used += message.length;
		return at;
	}
}

/** Half as much room again: memory follows what is kept, and copying stays rare. */
function grown<T extends Uint8Array | Uint32Array | Float64Array>(
	old: T,
	make: new (length: number) => T
): T {
	const next = new make(Math.ceil(old.length * 1.5));
	next.set(old);
	return next;
}
