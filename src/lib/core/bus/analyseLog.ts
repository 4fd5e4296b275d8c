import { hex } from '../bytes';
import { decodeDiagnosticMessage, type HeavyCode, type HeavyLamps } from '../codes/diagnosticMessage';
import { codesInResponse, type ToldCode } from '../uds/codesInResponse';
import { NEGATIVE, RESPONSE_PENDING } from '../uds/negativeResponse';
import { isKnownService, POSITIVE_OFFSET } from '../uds/services';
import { tellsOfFault } from '../codes/status';
import {
	answerId,
	isDiagnosticId,
	isToAll,
	requestId,
	testerOf,
	type DiagnosticPair
} from './diagnosticPair';
import { ExchangeStore } from './exchangeStore';
import { FrameLogReader, idText, type BadLine, type Frame } from './frameLog';
import { CONNECTION_PGN, DATA_PGN, HeavyTransport } from './heavyTransport';
import { SegmentReader, type SegmentTrouble, type WholeMessage } from './segments';

/** Something in the traffic that could not be put together. */
export interface BusProblem {
	timeS: number;
	id: string;
	reason: string;
	/** One plain sentence part: what was expected and what came. */
	detail: string;
}

/** A module that told codes in this log. */
export interface ModuleInLog {
	requestId: string | null;
	responseId: string;
	codes: ToldCode[];
}

/** What one sender told all others of its codes, over the whole log. */
export interface Broadcast {
	/** Source address, two hex digits. */
	source: string;
	pgn: number;
	/** Every code it named; with the occurrence count named last. */
	codes: HeavyCode[];
	/** As told last. */
	lamps: HeavyLamps;
	messages: number;
}

/** Code messages of SAE J1939-73 that share one layout: DM1, DM2, DM6, DM12, DM23, DM28. */
const CODE_MESSAGES: Record<number, string> = {
	65226: 'DM1',
	65227: 'DM2',
	65231: 'DM6',
	65236: 'DM12',
	64949: 'DM23',
	64896: 'DM28'
};
export const codeMessageName = (pgn: number): string => CODE_MESSAGES[pgn] ?? `PGN ${pgn}`;

const MOST_BAD_LINES = 1000;
const MOST_PROBLEMS = 10_000;
/** How often waiting messages are looked at, in log time. */
const EXPIRE_EVERY_S = 0.25;
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
 * Follows a frame log from beginning to end in one pass: puts segmented messages together, pairs requests with answers,
 * and gathers the codes that modules told. Feed it bytes with {@link push}, then {@link end}.
 */
export class BusAnalysis {
	readonly exchanges = new ExchangeStore();
	readonly badLines: BadLine[] = [];
	readonly problems: BusProblem[] = [];
	badLineCount = 0;
	problemCount = 0;
	private readonly log: FrameLogReader;
	private readonly lines = new Map<number, Line>();
	private readonly heavy = new Map<number, HeavyTransport>();
	private readonly told = new Map<string, ModuleInLog>();
	private readonly heard = new Map<string, Broadcast>();
	private readonly pairs: DiagnosticPair[];
	private firstS = NaN;
	private lastS = 0;
	private nextExpireS = 0;

	constructor(pairs: DiagnosticPair[] = []) {
		this.pairs = pairs;
		this.log = new FrameLogReader({
			frame: (frame) => this.frame(frame),
			badLine: (bad) => {
				this.badLineCount++;
				if (this.badLines.length < MOST_BAD_LINES) this.badLines.push(bad);
			}
		});
	}

	get frames(): number {
		return this.log.frames;
	}

	get lineCount(): number {
		return this.log.lines;
	}

	get durationS(): number {
		return Number.isNaN(this.firstS) ? 0 : micros(Math.max(0, this.lastS));
	}

	get modules(): ModuleInLog[] {
		return [...this.told.values()].sort((a, b) => (a.responseId < b.responseId ? -1 : 1));
	}

	get broadcasts(): Broadcast[] {
		return [...this.heard.values()].sort((a, b) => (a.source < b.source ? -1 : 1));
	}

	push(chunk: Uint8Array): void {
		this.log.push(chunk);
	}

	end(): void {
		this.log.end();
		for (const line of this.lines.values()) line.reader.end();
		for (const transport of this.heavy.values()) transport.end();
		for (const line of this.lines.values()) if (line.diagnostic) this.release(line);
	}

	private frame(frame: Frame): void {
		if (Number.isNaN(this.firstS)) this.firstS = frame.timeS;
		const timeS = frame.timeS - this.firstS;
		if (timeS > this.lastS) this.lastS = timeS;
		if (timeS >= this.nextExpireS) this.expire(timeS);
		if (frame.remote || frame.id > 0x1fffffff) return;
		if (isDiagnosticId(frame.id, frame.extended) || this.isGiven(frame.id, frame.extended)) {
			this.diagnostic(frame, timeS);
		} else if (frame.extended) this.heavyFrame(frame, timeS);
	}

	private isGiven(id: number, extended: boolean): boolean {
		return (
			this.pairs.length > 0 &&
			this.pairs.some((p) => p.extended === extended && (p.request === id || p.response === id))
		);
	}

	private expire(nowS: number): void {
		this.nextExpireS = nowS + EXPIRE_EVERY_S;
		for (const line of this.lines.values()) if (line.reader.open) line.reader.expire(nowS);
		for (const transport of this.heavy.values()) if (transport.open) transport.expire(nowS);
	}

	private diagnostic(frame: Frame, timeS: number): void {
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
		this.gather(line, physical, bytes);
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

	private gather(line: Line, physical: number, bytes: Uint8Array): void {
		if (bytes[0] === NEGATIVE || sameBytes(bytes, line.gathered)) return;
		line.gathered = bytes;
		const told = codesInResponse(bytes);
		if (!told.ok) {
			if (bytes[0] === 0x59 && told.error.byte > 1)
				this.problem(this.lastS, line, 'cut answer', told.error.expected);
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

	private heavyFrame(frame: Frame, timeS: number): void {
		const source = frame.id & 0xff;
		const target = (frame.id >>> 8) & 0xff;
		const format = (frame.id >>> 16) & 0xff;
		// Below F0 the byte after the format is the receiver, above it belongs to the number.
		const pgn = ((frame.id >>> 8) & 0x3ff00) | (format < 0xf0 ? 0 : target);
		if (pgn === CONNECTION_PGN || pgn === DATA_PGN) {
			const transport = this.transportOf(frame.channel);
			if (pgn === DATA_PGN) transport.packet(frame.id, frame.data, frame.length, timeS);
			else transport.connection(frame.id, frame.data, frame.length, timeS);
		} else if (pgn in CODE_MESSAGES)
			this.broadcast(source, pgn, frame.data.slice(0, frame.length), timeS, frame.id);
	}

	private transportOf(channel: number): HeavyTransport {
		const known = this.heavy.get(channel);
		if (known) return known;
		const transport = new HeavyTransport({
			message: (source, pgn, bytes, startS) => {
				if (pgn in CODE_MESSAGES) this.broadcast(source, pgn, bytes, startS, null);
			},
			trouble: (reason, id, timeS, detail) => this.problemOf(timeS, idText(id, true), reason, detail)
		});
		this.heavy.set(channel, transport);
		return transport;
	}

	private broadcast(source: number, pgn: number, bytes: Uint8Array, timeS: number, id: number | null): void {
		const from = hex(Uint8Array.of(source));
		const message = decodeDiagnosticMessage(bytes);
		if (!message.ok) {
			const where = id === null ? from : idText(id, true);
			return this.problemOf(timeS, where, 'bad length', `${codeMessageName(pgn)}: ${message.error.expected}`);
		}
		const key = `${from}/${pgn}`;
		const known = this.heard.get(key) ?? {
			source: from,
			pgn,
			codes: [],
			lamps: message.value.lamps,
			messages: 0
		};
		known.messages++;
		known.lamps = message.value.lamps;
		for (const code of message.value.codes) {
			const at = known.codes.findIndex((c) => c.spn === code.spn && c.fmi === code.fmi);
			if (at === -1) known.codes.push(code);
			else known.codes[at] = code;
		}
		this.heard.set(key, known);
	}

	private trouble(line: Line, reason: SegmentTrouble, timeS: number, detail: string): void {
		if (line.diagnostic || !ONLY_IF_DIAGNOSTIC.includes(reason)) this.problem(timeS, line, reason, detail);
		else if (line.held.length < 10) line.held.push({ reason, timeS, detail });
	}

	private release(line: Line): void {
		for (const { reason, timeS, detail } of line.held) this.problem(timeS, line, reason, detail);
		line.held = [];
	}

	private problem(timeS: number, line: Line, reason: string, detail: string): void {
		this.problemOf(timeS, idText(line.id, line.extended), reason, detail);
	}

	private problemOf(timeS: number, id: string, reason: string, detail: string): void {
		this.problemCount++;
		if (this.problems.length < MOST_PROBLEMS)
			this.problems.push({ timeS: micros(timeS), id, reason, detail });
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
