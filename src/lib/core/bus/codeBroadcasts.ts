import { hex } from '../bytes';
import { decodeDiagnosticMessage, type HeavyCode, type HeavyLamps } from '../codes/diagnosticMessage';
import { idText, type Frame } from './frameLog';
import { CONNECTION_PGN, DATA_PGN, HeavyTransport } from './heavyTransport';

/** Tells of something that could not be put together. @param id as logs write it */
export type TellProblem = (timeS: number, id: string, reason: string, detail: string) => void;

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

/** Code messages of SAE J1939-73 that share one layout. */
const CODE_MESSAGES: Record<number, string> = {
	65226: 'DM1',
	65227: 'DM2',
	65231: 'DM6',
	65236: 'DM12',
	64949: 'DM23',
	64896: 'DM28'
};
export const codeMessageName = (pgn: number): string => CODE_MESSAGES[pgn] ?? `PGN ${pgn}`;

/** Below this format the byte after it is the receiver, from it on it belongs to the number (SAE J1939-21). */
const FIRST_TO_ALL_FORMAT = 0xf0;

/** Gathers what heavy vehicles' modules broadcast of their codes, in one frame or in many. */
export class CodeBroadcasts {
	private readonly transports = new Map<number, HeavyTransport>();
	private readonly heard = new Map<string, Broadcast>();

	constructor(private readonly problem: TellProblem) {}

	/** By sender and message. */
	get list(): Broadcast[] {
		return [...this.heard.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, broadcast]) => broadcast);
	}

	/** Any frame with a 29-bit identifier; ordinary traffic is passed over. */
	frame(frame: Frame, timeS: number): void {
		const format = (frame.id >>> 16) & 0xff;
		const pgn = ((frame.id >>> 8) & 0x3ff00) | (format < FIRST_TO_ALL_FORMAT ? 0 : (frame.id >>> 8) & 0xff);
		if (pgn === CONNECTION_PGN) {
			this.transportOf(frame.channel).connection(frame.id, frame.data, frame.length, timeS);
		} else if (pgn === DATA_PGN) {
			this.transportOf(frame.channel).packet(frame.id, frame.data, frame.length, timeS);
		} else if (pgn in CODE_MESSAGES)
			this.message(frame.id & 0xff, pgn, frame.data.slice(0, frame.length), timeS, frame.id);
	}

	expire(nowS: number): void {
		for (const transport of this.transports.values()) if (transport.open) transport.expire(nowS);
	}

	end(): void {
		for (const transport of this.transports.values()) transport.end();
	}

	private transportOf(channel: number): HeavyTransport {
		const known = this.transports.get(channel);
		if (known) return known;
		const transport = new HeavyTransport({
			message: (source, pgn, bytes, startS, id) => {
				if (pgn in CODE_MESSAGES) this.message(source, pgn, bytes, startS, id);
			},
			trouble: (reason, id, timeS, detail) => this.problem(timeS, idText(id, true), reason, detail)
		});
		this.transports.set(channel, transport);
		return transport;
	}

	private message(source: number, pgn: number, bytes: Uint8Array, timeS: number, id: number): void {
		const message = decodeDiagnosticMessage(bytes);
		if (!message.ok) {
			const detail = `${codeMessageName(pgn)}: ${message.error.expected}`;
			return this.problem(timeS, idText(id, true), 'bad length', detail);
		}
		const from = hex(Uint8Array.of(source));
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
}
