/**
 * The open line protocol of serial CAN adapters, the one that the Linux kernel's slcan driver speaks: one command or
 * frame a line in ASCII, ended by a carriage return; a bell in its place says that a command was refused.
 */
export interface CanFrame {
	id: number;
	/** 29-bit identifier. */
	extended: boolean;
	data: Uint8Array;
}

export type SlcanEvent =
	| { kind: 'frame'; frame: CanFrame }
	| { kind: 'done' }
	| { kind: 'refused' }
	/** What went wrong in the adapter since it was asked last, a bit each. */
	| { kind: 'flags'; value: number }
	| { kind: 'garbage'; line: string };

/** Bits a second and the command that sets them. */
export const SLCAN_SPEEDS: ReadonlyMap<number, string> = new Map(
	[10, 20, 50, 100, 125, 250, 500, 800, 1000].map((kbit, nth) => [kbit * 1000, `S${nth}`])
);

const RETURN = 13;
const BELL = 7;
/** The longest line is a frame of 29 bits, eight bytes and a time stamp. */
const LONGEST_LINE = 1 + 8 + 1 + 16 + 8;
const MOST_DATA = 8;
const MAX_STANDARD_ID = 0x7ff;
const MAX_EXTENDED_ID = 0x1fffffff;

const hexOf = (value: number, digits: number) => value.toString(16).toUpperCase().padStart(digits, '0');

/** One data frame as its line, with the carriage return. */
export function encodeSlcan({ id, extended, data }: CanFrame): string {
	const bytes = Array.from(data, (byte) => hexOf(byte, 2)).join('');
	return `${extended ? 'T' : 't'}${hexOf(id, extended ? 8 : 3)}${data.length}${bytes}\r`;
}

/** What the adapter's status bits say, most telling first; null where nothing is wrong. */
export function flagsText(flags: number): string | null {
	const said = [
		[0x09, 'it was overrun and lost frames'],
		[0x80, 'it counts faults on the bus'],
		[0x20, 'it has withdrawn from the bus after too many faults'],
		[0x02, 'it had no room for what was to be sent'],
		[0x04, 'it warns of faults on the bus']
	] as const;
	return said.find(([bits]) => (flags & bits) !== 0)?.[1] ?? null;
}

/** Cuts what arrives into lines and reads them. Damaged lines are told, never guessed; the next one is read as if nothing was. */
export class SlcanReader {
	private held = '';
	private overlong = false;

	push(chunk: Uint8Array): SlcanEvent[] {
		const events: SlcanEvent[] = [];
		for (const byte of chunk) {
			if (byte === BELL) {
				if (this.held) events.push({ kind: 'garbage', line: this.take() });
				events.push({ kind: 'refused' });
			} else if (byte === RETURN) {
				const overlong = this.overlong;
				const line = this.take();
				events.push(overlong ? { kind: 'garbage', line } : readLine(line));
			} else if (this.held.length < LONGEST_LINE) this.held += String.fromCharCode(byte);
			else this.overlong = true;
		}
		return events;
	}

	private take(): string {
		const line = this.held;
		this.held = '';
		this.overlong = false;
		return line;
	}
}

function readLine(line: string): SlcanEvent {
	if (line === '' || line === 'z' || line === 'Z') return { kind: 'done' };
	const flags = /^F([0-9A-F]{2})$/i.exec(line)?.[1];
	if (flags !== undefined) return { kind: 'flags', value: parseInt(flags, 16) };
	// Version and serial number of the adapter answer questions that were not ours.
	if (/^[VN][0-9A-Z]{4}$/i.test(line)) return { kind: 'done' };
	const frame = readFrame(line);
	return frame ? { kind: 'frame', frame } : { kind: 'garbage', line };
}

/** A line `tIIILDD…` or `TIIIIIIIILDD…`, with or without a time stamp of four digits behind it; null for any other. */
export function readFrame(line: string): CanFrame | null {
	const extended = line.startsWith('T');
	if (!extended && !line.startsWith('t')) return null;
	const digits = extended ? 8 : 3;
	if (!/^.[0-9A-Fa-f]+$/.test(line) || line.length < 2 + digits) return null;
	const id = parseInt(line.slice(1, 1 + digits), 16);
	const count = Number(line.charAt(1 + digits));
	const payload = line.slice(2 + digits);
	if (id > (extended ? MAX_EXTENDED_ID : MAX_STANDARD_ID) || !(count <= MOST_DATA)) return null;
	if (payload.length !== 2 * count && payload.length !== 2 * count + 4) return null;
	const data = Uint8Array.from({ length: count }, (_, i) => parseInt(payload.slice(2 * i, 2 * i + 2), 16));
	return { id, extended, data };
}
