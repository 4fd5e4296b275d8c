import { connect, type Socket } from 'node:net';
import { fail, ok, type Result } from '../../core/result';
import {
	diagnosticNackText,
	DoipReader,
	encodeDiagnostic,
	encodeDoip,
	PayloadType,
	readWord,
	RoutingCode,
	word,
	type DoipMessage
} from '../../core/uds/doip';
import { NEGATIVE, RESPONSE_PENDING } from '../../core/uds/negativeResponse';
import { ReadCodes } from '../../core/uds/readCodes';
import type { LinkError, LinkErrorKind, VehicleLink } from './vehicleLink';

export interface LinkTimes {
	connectMs: number;
	/** Until a module's first answer. */
	answerMs: number;
	/** Until the next answer after "still working". */
	pendingMs: number;
}

const TIMES: LinkTimes = { connectMs: 3000, answerMs: 1200, pendingMs: 5500 };
/** Modules that say "still working" more often than this never finish. */
const MOST_PENDING = 30;
/** Our address as external test equipment (ISO 13400-2: 0E00–0FFF). */
const TESTER_ADDRESS = 0x0e80;
const ACTIVATION_DEFAULT = 0x00;

const trouble = (kind: LinkErrorKind, text: string): LinkError => ({ kind, text });

/** Diagnostics over TCP (ISO 13400-2) as a {@link VehicleLink}. */
export class DoipLink implements VehicleLink {
	private readonly reader = new DoipReader();
	private readonly waiting: ((next: Result<DoipMessage, LinkError>) => void)[] = [];
	private readonly inbox: DoipMessage[] = [];
	private broken: LinkError | null = null;

	private constructor(
		private readonly socket: Socket,
		private readonly times: LinkTimes
	) {
		socket.setNoDelay(true);
		socket.on('data', (chunk) => this.take(chunk));
		socket.on('error', () => undefined);
		socket.on('close', () => this.lose(trouble('closed', 'The vehicle closed the connection.')));
	}

	/** Connects and asks for routing. @param address `host:port` */
	static async open(address: string, times: LinkTimes = TIMES): Promise<Result<DoipLink, LinkError>> {
		const [host, port] = splitAddress(address);
		const socket = await connectTo(host, port, times.connectMs);
		if (!socket.ok) return socket;
		const link = new DoipLink(socket.value, times);
		const activated = await link.activate();
		if (!activated.ok) {
			link.close();
			return activated;
		}
		return ok(link);
	}

	close(): void {
		this.lose(trouble('cancelled', 'The connection was closed on our side.'));
		this.socket.destroy();
	}

	async request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>> {
		if (this.broken) return fail(this.broken);
		// An answer that came too late for the request before is not the answer to this one.
		this.inbox.length = 0;
		this.socket.write(encodeDiagnostic(TESTER_ADDRESS, address, bytes));
		let deadline = Date.now() + this.times.answerMs;
		for (let pending = 0; pending <= MOST_PENDING;) {
			const next = await this.next(deadline - Date.now(), 'The module did not answer.');
			if (!next.ok) return next;
			const { type, payload } = next.value;
			if (type === PayloadType.diagnosticNack) {
				const text = diagnosticNackText(payload[4] ?? 0xff);
				return fail(trouble('unreachable', `${text.charAt(0).toUpperCase()}${text.slice(1)}.`));
			}
			if (type !== PayloadType.diagnosticMessage || payload.length < 5) continue;
			if (readWord(payload, 0) !== address) continue;
			const answer = payload.slice(4);
			if (answer[0] === NEGATIVE && answer[2] === RESPONSE_PENDING) {
				pending += 1;
				deadline = Date.now() + this.times.pendingMs;
				continue;
			}
			if (answersTo(bytes, answer)) return ok(answer);
		}
		return fail(trouble('no-answer', 'The module keeps saying that it is still working.'));
	}

	private async activate(): Promise<Result<null, LinkError>> {
		this.socket.write(
			encodeDoip(PayloadType.routingActivationRequest, [
				...word(TESTER_ADDRESS),
				ACTIVATION_DEFAULT,
				0,
				0,
				0,
				0
			])
		);
		const next = await this.next(this.times.answerMs, NO_VEHICLE);
		if (!next.ok) return next.error.kind === 'no-answer' ? fail({ ...next.error, kind: 'denied' }) : next;
		const { type, payload } = next.value;
		if (type !== PayloadType.routingActivationResponse || payload.length < 9) {
			return fail(trouble('garbage', NO_VEHICLE));
		}
		if (payload[4] === RoutingCode.activated) return ok(null);
		return fail(
			trouble(
				'denied',
				`The vehicle refused to open its network (code ${(payload[4] ?? 0).toString(16).padStart(2, '0')}).`
			)
		);
	}

	private take(chunk: Uint8Array): void {
		const { messages, error } = this.reader.push(chunk);
		for (const message of messages) {
			if (message.type === PayloadType.aliveCheckRequest) {
				this.socket.write(encodeDoip(PayloadType.aliveCheckResponse, word(TESTER_ADDRESS)));
				continue;
			}
			const waiter = this.waiting.shift();
			if (waiter) waiter(ok(message));
			else this.inbox.push(message);
		}
		if (error) {
			this.lose(trouble('garbage', `The line carries ${error.reason}.`));
			this.socket.destroy();
		}
	}

	private lose(error: LinkError): void {
		this.broken ??= error;
		for (const waiter of this.waiting.splice(0)) waiter(fail(this.broken));
	}

	private next(withinMs: number, otherwise: string): Promise<Result<DoipMessage, LinkError>> {
		const held = this.inbox.shift();
		if (held) return Promise.resolve(ok(held));
		if (this.broken) return Promise.resolve(fail(this.broken));
		return new Promise((resolve) => {
			const settle = (result: Result<DoipMessage, LinkError>) => {
				clearTimeout(timer);
				const at = this.waiting.indexOf(settle);
				if (at >= 0) this.waiting.splice(at, 1);
				resolve(result);
			};
			// After a stall of this process its timers run before its sockets are read: what has arrived is taken first.
			const tooLate = () => setImmediate(() => settle(fail(trouble('no-answer', otherwise))));
			const timer = setTimeout(tooLate, Math.max(0, withinMs));
			this.waiting.push(settle);
		});
	}
}

/** The same whether nothing listens, it is silent, or something else talks: what runs at an address is nobody's business. */
const NO_VEHICLE = 'No vehicle answers there. Is the interface plugged in and the vehicle awake?';

/** Bytes after the service that a positive answer repeats (ISO 14229-1): what was asked for, or of which code. */
function echoed(request: ArrayLike<number>): number {
	if (request[0] === 0x22) return 2;
	if (request[0] !== 0x19) return 0;
	return request[1] === ReadCodes.snapshot || request[1] === ReadCodes.extended ? 4 : 1;
}

/** A late answer to an earlier request of the same service is told by what it repeats; a short one is judged by its reader. */
function answersTo(request: ArrayLike<number>, answer: Uint8Array): boolean {
	const service = request[0] ?? 0;
	if (answer[0] === NEGATIVE) return answer[1] === service;
	if (answer[0] !== service + 0x40) return false;
	const repeats = Math.min(echoed(request) + 1, answer.length);
	for (let i = 1; i < repeats; i++) if (answer[i] !== request[i]) return false;
	return true;
}

function splitAddress(address: string): [string, number] {
	const at = address.lastIndexOf(':');
	return [address.slice(0, at), Number(address.slice(at + 1))];
}

function connectTo(host: string, port: number, withinMs: number): Promise<Result<Socket, LinkError>> {
	return new Promise((resolve) => {
		const socket = connect({ host, port });
		const give = (text: string) => {
			socket.destroy();
			resolve(fail(trouble('refused', text)));
		};
		const timer = setTimeout(() => give(NO_VEHICLE), withinMs);
		socket.once('connect', () => {
			clearTimeout(timer);
			socket.removeAllListeners('error');
			resolve(ok(socket));
		});
		socket.once('error', () => {
			clearTimeout(timer);
			give(NO_VEHICLE);
		});
	});
}
