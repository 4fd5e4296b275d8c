import { tellsOfFault } from '../codes/status';
import { codesInResponse, type ToldCode } from '../uds/codesInResponse';
import { NEGATIVE, RESPONSE_PENDING } from '../uds/negativeResponse';
import { isKnownService, POSITIVE_OFFSET } from '../uds/services';
import type { TellProblem } from './codeBroadcasts';
import { answerId, isToAll, requestId, testerOf, type DiagnosticPair } from './diagnosticPair';
import { ExchangeStore } from './exchangeStore';
import { idText, type Frame } from './frameLog';
import { SegmentReader, type SegmentTrouble, type WholeMessage } from './segments';

/** A module that told codes in this log. */
export interface ModuleInLog {
	requestId: string | null;
	responseId: string;
	codes: ToldCode[];
}

/** Longest wait for an answer (P2* of ISO 14229-2, with room): later ones answer nothing. */
const ANSWER_WITHIN_S = 10;
/** A module only complains of these on an identifier that is known to carry diagnostics. */
const ONLY_IF_DIAGNOSTIC: readonly SegmentTrouble[] = [
	'reserved frame type',
	'bad length',
	'consecutive frame without a first'
];

interface Waiting {
	exchange: number;
	service: number;
	atS: number;
	/** A request to all may be answered more than once. */
	toAll: boolean;
	answered: boolean;
}

interface Line {
	id: number;
	extended: boolean;
	reader: SegmentReader;
	/** It, or its partner, has carried a diagnostic message. */
	diagnostic: boolean;
	held: { reason: SegmentTrouble; timeS: number; detail: string }[];
	/** Given by the user as the tester's side or the module's; null = told by what it says. */
	side: 'request' | 'response' | null;
	partner: number | null;
	/** The code answer gathered last: a tester that asks again and again mostly hears the same. */
	gathered: Uint8Array | null;
	/** The request on this identifier that waits for its answer. */
	waiting: Waiting | null;
}

/**
 * Follows the diagnostic conversations of a log, any number at a time: one segment reader for each identifier, requests
 * paired with their answers, codes gathered by module.
 */
export class Conversations {
	readonly exchanges = new ExchangeStore();
	private readonly lines = new Map<number, Line>();
	private readonly told = new Map<string, ModuleInLog>();

	constructor(
		private readonly pairs: DiagnosticPair[],
		private readonly problem: TellProblem
	) {}

	/** By the identifier that they answer on. */
	get modules(): ModuleInLog[] {
		return [...this.told.values()].sort((a, b) => (a.responseId < b.responseId ? -1 : 1));
	}

	/** Whether an identifier belongs to a pair that was given. */
	isGiven(id: number, extended: boolean): boolean {
		return (
			this.pairs.length > 0 &&
			this.pairs.some((p) => p.extended === extended && (p.request === id || p.response === id))
		);
	}

	expire(nowS: number): void {
		for (const line of this.lines.values()) if (line.reader.open) line.reader.expire(nowS);
	}

	end(): void {
		for (const line of this.lines.values()) line.reader.end();
		for (const line of this.lines.values()) if (line.diagnostic) this.release(line);
	}

	/** A frame on an identifier that can carry diagnostics. */
	frame(frame: Frame, timeS: number): void {
		const line = this.lineOf(frame.id, frame.extended, frame.channel);
		// Flow control speaks of the message that comes the other way.
		if (frame.length > 0 && (frame.data[0] as number) >> 4 === 3) {
			for (const partner of this.partners(line, frame.channel))
				partner.reader.flowControl(frame.data, frame.length, timeS);
			return;
		}
		line.reader.frame(frame.data, frame.length, timeS);
	}

	private lineOf(id: number, extended: boolean, channel: number): Line {
		const key = lineKey(id, extended, channel);
		const known = this.lines.get(key);
		if (known) return known;
		const given = this.pairs.find((p) => p.extended === extended && (p.request === id || p.response === id));
		const line: Line = {
			id,
			extended,
			diagnostic: given !== undefined,
			held: [],
			side: given ? (given.request === id ? 'request' : 'response') : null,
			partner: given ? (given.request === id ? given.response : given.request) : null,
			gathered: null,
			waiting: null,
			reader: new SegmentReader({
				message: (message) => this.message(line, channel, message),
				trouble: (reason, timeS, detail) => this.trouble(line, reason, timeS, detail)
			})
		};
		this.lines.set(key, line);
		return line;
	}

	private partners(line: Line, channel: number): Line[] {
		const ids =
			line.partner !== null
				? [line.partner]
				: [answerId(line.id, line.extended), requestId(line.id, line.extended)];
		return ids
			.map((id) => this.lines.get(lineKey(id, line.extended, channel)))
			.filter((partner) => partner !== undefined);
	}

	private message(line: Line, channel: number, message: WholeMessage): void {
		const [service = 0] = message.bytes;
		const side = line.side ?? sideOf(service);
		const asked = service === NEGATIVE ? (message.bytes[1] ?? 0) : service - POSITIVE_OFFSET;
		const credible = isKnownService(side === 'request' ? service : asked);
		if (!credible && !line.diagnostic) return;
		if (!line.diagnostic) {
			line.diagnostic = true;
			this.release(line);
		}
		if (side === 'request') this.request(line, message, service);
		else this.response(line, channel, message, asked);
	}

	private request(line: Line, { startS, bytes }: WholeMessage, service: number): void {
		const toAll = isToAll(line.id, line.extended);
		const from = toAll ? null : (line.partner ?? answerId(line.id, line.extended));
		const exchange = this.exchanges.add(micros(startS), line.id, from, line.extended, bytes);
		line.waiting = { exchange, service, atS: startS, toAll, answered: false };
	}

	private response(line: Line, channel: number, { startS, bytes }: WholeMessage, asked: number): void {
		const waiting = this.waitingFor(line, channel, asked, startS);
		const stillWorking = bytes[0] === NEGATIVE && bytes[2] === RESPONSE_PENDING;
		if (stillWorking) {
			if (waiting) {
				waiting.atS = startS;
				this.exchanges.wait(waiting.exchange);
			}
			return;
		}
		const physical = line.partner ?? requestId(line.id, line.extended);
		if (!waiting) {
			const index = this.exchanges.add(micros(startS), null, line.id, line.extended, null);
			this.exchanges.answer(index, line.id, bytes);
		} else {
			const index = waiting.answered ? this.exchanges.again(waiting.exchange, line.id) : waiting.exchange;
			this.exchanges.answer(index, line.id, bytes);
			waiting.answered = true;
		}
		this.gather(line, physical, bytes, startS);
	}

	/** The request that an answer on this identifier belongs to: its own, or one that went to all. */
	private waitingFor(line: Line, channel: number, asked: number, nowS: number): Waiting | null {
		const own = line.partner ?? requestId(line.id, line.extended);
		const toAll = line.extended ? [0x18db33, 0x18dbff].map((t) => (t << 8) | testerOf(line.id)) : [0x7df];
		for (const id of [own, ...toAll]) {
			const waiting = this.lines.get(lineKey(id, line.extended, channel))?.waiting;
			if (!waiting || waiting.service !== asked || nowS - waiting.atS > ANSWER_WITHIN_S) continue;
			if (!waiting.answered || waiting.toAll) return waiting;
		}
		return null;
	}

	private gather(line: Line, physical: number, bytes: Uint8Array, startS: number): void {
		if (bytes[0] === NEGATIVE || sameBytes(bytes, line.gathered)) return;
		line.gathered = bytes;
		const told = codesInResponse(bytes);
		if (!told.ok) {
			if (bytes[0] === 0x59 && told.error.byte > 1)
				this.problem(startS, idText(line.id, line.extended), 'cut answer', told.error.expected);
			return;
		}
		const responseId = idText(line.id, line.extended);
		let module = this.told.get(responseId);
		if (!module) {
			module = { requestId: idText(physical, line.extended), responseId, codes: [] };
			this.told.set(responseId, module);
		}
		for (const code of told.value.codes) {
			// A list of everything a module could set tells of a fault only where the status does.
			if (told.value.supportedOnly && !tellsOfFault(code.status ?? 0)) continue;
			const known = module.codes.find((c) => c.code === code.code && c.failureType === code.failureType);
			if (!known) module.codes.push(code);
			else if (code.status !== null) known.status = code.status;
		}
	}

	private trouble(line: Line, reason: SegmentTrouble, timeS: number, detail: string): void {
		if (line.diagnostic || !ONLY_IF_DIAGNOSTIC.includes(reason))
			this.problem(timeS, idText(line.id, line.extended), reason, detail);
		else if (line.held.length < 10) line.held.push({ reason, timeS, detail });
	}

	private release(line: Line): void {
		for (const { reason, timeS, detail } of line.held)
			this.problem(timeS, idText(line.id, line.extended), reason, detail);
		line.held = [];
	}
}

/** Bit 6 of the service byte tells a request from an answer (ISO 14229-1, 8.2). */
const sideOf = (service: number): 'request' | 'response' =>
	service === NEGATIVE || (service & POSITIVE_OFFSET) !== 0 ? 'response' : 'request';

function sameBytes(a: Uint8Array, b: Uint8Array | null): boolean {
	if (b === null || a.length !== b.length) return false;
	for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
	return true;
}

const lineKey = (id: number, extended: boolean, channel: number): number =>
	channel * 0x40000000 + (extended ? 0x20000000 : 0) + id;

const micros = (seconds: number): number => Math.round(seconds * 1e6) / 1e6;
