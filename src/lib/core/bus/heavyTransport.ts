/**
 * Long messages of heavy vehicles, SAE J1939-21: announced to all (BAM) or asked for and confirmed (RTS/CTS), then sent
 * in packets of seven bytes numbered from 1. One sender has at most one message under way to each receiver.
 */
export type HeavyTrouble = 'sequence gap' | 'overlap' | 'timeout' | 'aborted' | 'bad length';

export interface HeavySink {
	message(source: number, pgn: number, bytes: Uint8Array, startS: number, id: number): void;
	/** @param id of the frame that announced the message */
	trouble(reason: HeavyTrouble, id: number, timeS: number, detail: string): void;
}

export const CONNECTION_PGN = 0xec00;
export const DATA_PGN = 0xeb00;

const RTS = 16;
const CTS = 17;
const ABORT = 255;
const BAM = 32;
const TO_ALL = 0xff;
const PACKET_BYTES = 7;
const MOST_BYTES = 1785;
/** T1: longest wait between announced packets; T2: between a permission to send and the packet. */
const BROADCAST_TIMEOUT_S = 0.75;
const CONNECTION_TIMEOUT_S = 1.25;

interface Session {
	/** Identifier of the frame that announced it. */
	id: number;
	source: number;
	pgn: number;
	buffer: Uint8Array;
	/** Packets received so far, in order. */
	received: number;
	packets: number;
	broadcast: boolean;
	startS: number;
	lastS: number;
}

export class HeavyTransport {
	private readonly sessions = new Map<number, Session>();

	constructor(private readonly sink: HeavySink) {}

	get open(): boolean {
		return this.sessions.size > 0;
	}

	/** A connection management frame. */
	connection(id: number, data: Uint8Array, length: number, timeS: number): void {
		if (length < 8) return;
		const [source, target] = ends(id);
		const [control = 0, b1 = 0, b2 = 0, b3 = 0] = data;
		if (control === RTS || control === BAM) {
			const bytes = b1 | (b2 << 8);
			const pgn = (data[5] as number) | ((data[6] as number) << 8) | ((data[7] as number) << 16);
			return this.begin(id, control === BAM ? TO_ALL : target, pgn, bytes, b3, timeS);
		}
		// The receiver speaks: its message is the one the other side sends to it.
		const session = this.sessions.get(key(target, source));
		if (control === CTS && session) {
			session.lastS = timeS;
			// Packets may be asked for again: what came after them is taken anew.
			if (b1 > 0 && b2 >= 1 && b2 - 1 < session.received) session.received = b2 - 1;
		} else if (control === ABORT) {
			for (const k of [key(target, source), key(source, target)]) {
				const ended = this.sessions.get(k);
				if (ended) this.abandon(k, ended, 'aborted', timeS, `one side gave up (reason ${b1})`);
			}
		}
	}

	/** A data packet. */
	packet(id: number, data: Uint8Array, length: number, timeS: number): void {
		this.expire(timeS);
		const [source, target] = ends(id);
		const k = key(source, target);
		const session = this.sessions.get(k);
		if (!session || length < 2) return;
		const number = data[0] as number;
		if (number !== session.received + 1) {
			const detail = `packet ${session.received + 1} expected, ${number} came`;
			return this.abandon(k, session, 'sequence gap', timeS, detail);
		}
		const at = session.received * PACKET_BYTES;
		session.buffer.set(
			data.subarray(1, Math.min(length, 1 + PACKET_BYTES, 1 + session.buffer.length - at)),
			at
		);
		session.received++;
		session.lastS = timeS;
		if (session.received === session.packets) {
			this.sessions.delete(k);
			this.sink.message(source, session.pgn, session.buffer, session.startS, session.id);
		}
	}

	expire(nowS: number): void {
		for (const [k, session] of this.sessions) {
			const patience = session.broadcast ? BROADCAST_TIMEOUT_S : CONNECTION_TIMEOUT_S;
			if (nowS - session.lastS > patience) this.abandon(k, session, 'timeout', session.lastS, came(session));
		}
	}

	end(): void {
		for (const [k, session] of this.sessions)
			this.abandon(k, session, 'timeout', session.lastS, `the log ends when ${came(session)}`);
	}

	private begin(id: number, target: number, pgn: number, bytes: number, packets: number, timeS: number) {
		this.expire(timeS);
		const [source] = ends(id);
		const k = key(source, target);
		const before = this.sessions.get(k);
		if (before) this.abandon(k, before, 'overlap', timeS, `a new message began when ${came(before)}`);
		if (bytes < 1 || bytes > MOST_BYTES || packets !== Math.ceil(bytes / PACKET_BYTES)) {
			this.sink.trouble('bad length', id, timeS, `${bytes} bytes do not fill ${packets} packets`);
			return;
		}
		this.sessions.set(k, {
			id,
			source,
			pgn,
			buffer: new Uint8Array(bytes),
			received: 0,
			packets,
			broadcast: target === TO_ALL,
			startS: timeS,
			lastS: timeS
		});
	}

	private abandon(k: number, session: Session, reason: HeavyTrouble, timeS: number, detail: string): void {
		this.sessions.delete(k);
		this.sink.trouble(reason, session.id, timeS, detail);
	}
}

/** Source and target address of an identifier to one receiver. */
const ends = (id: number): [source: number, target: number] => [id & 0xff, (id >>> 8) & 0xff];
const key = (source: number, target: number) => (source << 8) | target;
const came = (session: Session) => `${session.received} of ${session.packets} packets had come`;
