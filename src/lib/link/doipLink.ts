import type { Socket } from 'node:net';
import { fail, ok, type Result } from '../core/result';
import {
	DiagnosticNack,
	diagnosticNackText,
	DoipReader,
	encodeDiagnostic,
	encodeDoip,
	PayloadType,
	readWord,
	RoutingCode,
	word,
	type DoipMessage
} from '../core/uds/doip';
import { awaitAnswer } from './awaitAnswer';
import { connectTo, NO_VEHICLE } from './connectTo';
import {
	LINK_TIMES,
	trouble,
	type FoundModule,
	type LinkError,
	type LinkTimes,
	type VehicleLink
} from './vehicleLink';
import { WaitingLine } from './waitingLine';

/** Our address as external test equipment (ISO 13400-2: 0E00–0FFF). */
const TESTER_ADDRESS = 0x0e80;
const ACTIVATION_DEFAULT = 0x00;

/** Diagnostics over TCP (ISO 13400-2) as a {@link VehicleLink}. */
export class DoipLink implements VehicleLink {
	readonly over = 'network';
	private readonly reader = new DoipReader();
	private readonly inbox = new WaitingLine<DoipMessage>();
	/** The vehicle's own address, told with the routing. */
	private entity = 0;

	private constructor(
		private readonly socket: Socket,
		private readonly times: LinkTimes,
		private readonly routes: ReadonlyMap<number, number>
	) {
		socket.on('data', (chunk) => this.take(chunk));
		socket.on('error', () => undefined);
		socket.on('close', () => this.inbox.lose(trouble('closed', 'The vehicle closed the connection.')));
	}

	/**
	 * Connects and asks for routing.
	 *
	 * @param address `host:port`
	 * @param routes logical addresses of modules that a case knows by another
	 */
	static async open(
		address: string,
		times: LinkTimes = LINK_TIMES,
		routes: ReadonlyMap<number, number> = new Map()
	): Promise<Result<DoipLink, LinkError>> {
		const socket = await connectTo(address, times.connectMs);
		if (!socket.ok) return socket;
		const link = new DoipLink(socket.value, times, routes);
		const activated = await link.activate();
		if (!activated.ok) {
			link.close();
			return activated;
		}
		return ok(link);
	}

	close(): void {
		this.inbox.lose(trouble('cancelled', 'The connection was closed on our side.'));
		this.socket.destroy();
	}

	async request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>> {
		if (this.inbox.broken) return fail(this.inbox.broken);
		// An answer that came too late for the request before is not the answer to this one.
		this.inbox.empty();
		const target = this.routes.get(address) ?? address;
		this.socket.write(encodeDiagnostic(TESTER_ADDRESS, target, bytes));
		return awaitAnswer(bytes, (withinMs) => this.answerFrom(target, withinMs), this.times);
	}

	/** The next message of a module, or that the gateway will not pass ours on. */
	private async answerFrom(address: number, withinMs: number): Promise<Result<Uint8Array, LinkError>> {
		for (const deadline = Date.now() + withinMs; ;) {
			const next = await this.inbox.next(deadline - Date.now(), 'The module did not answer.');
			if (!next.ok) return next;
			const { type, payload } = next.value;
			if (type === PayloadType.diagnosticNack) {
				const text = diagnosticNackText(payload[4] ?? 0xff);
				return fail(trouble('unreachable', `${text.charAt(0).toUpperCase()}${text.slice(1)}.`));
			}
			if (type === PayloadType.diagnosticMessage && payload.length > 4 && readWord(payload, 0) === address)
				return ok(payload.slice(4));
		}
	}

	/**
	 * Asks the addresses near the vehicle's own whether somebody is present, a few at a time: a gateway says at once of
	 * which it knows nothing, and one that does not is given a moment for each few. What it knows and cannot reach, or what
	 * it took and nobody answered, is there and silent.
	 */
	async search(): Promise<Result<FoundModule[], LinkError>> {
		const found = new Map<number, string | null>();
		const asked = new Set<number>();
		let patienceMs = this.times.answerMs;
		this.inbox.empty();
		for (const block of blocksOf(searchedFrom(this.entity))) {
			if (this.inbox.broken) return fail(this.inbox.broken);
			for (const address of block) {
				asked.add(address);
				this.socket.write(encodeDiagnostic(TESTER_ADDRESS, address, TESTER_PRESENT));
			}
			// What was not told in time is heard later, with the blocks that follow or at the end.
			const allTold = await this.hearPresence(block, asked, found, patienceMs);
			patienceMs = allTold ? this.times.answerMs : UNTOLD_MS;
		}
		await this.hearPresence([...asked], asked, found, this.times.answerMs);
		const modules = [...found].map(([address, silent]) => ({ address, silent }));
		return ok(modules.sort((a, b) => a.address - b.address));
	}

	/** Takes what comes until all of a block is told, or time is up. @returns whether all of it was told */
	private async hearPresence(
		block: readonly number[],
		asked: Set<number>,
		found: Map<number, string | null>,
		patienceMs: number
	): Promise<boolean> {
		const isOpen = () => block.some((address) => asked.has(address));
		let deadline = Date.now() + patienceMs;
		while (isOpen()) {
			const next = await this.inbox.next(deadline - Date.now(), NO_ANSWER);
			if (!next.ok) break;
			const { type, payload } = next.value;
			const from = readWord(payload, 0);
			if (!asked.has(from)) continue;
			if (type === PayloadType.diagnosticMessage) {
				found.set(from, null);
				asked.delete(from);
			} else if (type === PayloadType.diagnosticNack) {
				if (payload[4] === DiagnosticNack.unreachable) found.set(from, UNREACHABLE);
				asked.delete(from);
			} else if (type === PayloadType.diagnosticAck) {
				// The gateway passed it on: an answer may still come.
				found.set(from, NO_ANSWER);
				deadline = Math.max(deadline, Date.now() + this.times.answerMs);
			}
		}
		return !isOpen();
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
		const next = await this.inbox.next(this.times.answerMs, NO_VEHICLE);
		if (!next.ok) return next.error.kind === 'no-answer' ? fail({ ...next.error, kind: 'denied' }) : next;
		const { type, payload } = next.value;
		if (type !== PayloadType.routingActivationResponse || payload.length < 9) {
			return fail(trouble('garbage', NO_VEHICLE));
		}
		this.entity = readWord(payload, 2);
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
			this.inbox.put(ok(message));
		}
		if (error) {
			this.inbox.lose(trouble('garbage', `The line carries ${error.reason}.`));
			this.socket.destroy();
		}
	}
}

const TESTER_PRESENT = [0x3e, 0x00];
const NO_ANSWER = 'The module did not answer.';
const UNREACHABLE = 'The gateway knows it and cannot reach it.';
/** How long a few addresses are listened for at a gateway that does not say of which it knows nothing. */
const UNTOLD_MS = 40;
/** Addresses asked at once: a gateway answers them one after the other. */
const AT_ONCE = 16;

/** Addresses that modules may have (ISO 13400-2): the low ones, and those that begin as the vehicle's own does. */
const searchedFrom = (entity: number): number[] => [
	...Array.from({ length: 0xff }, (_, i) => i + 1),
	...Array.from({ length: 0x1000 }, (_, i) => (entity & 0xf000) | i).filter((address) => address > 0xff)
];

function* blocksOf(addresses: number[]): Generator<number[]> {
	for (let at = 0; at < addresses.length; at += AT_ONCE) yield addresses.slice(at, at + AT_ONCE);
}
