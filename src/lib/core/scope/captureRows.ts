import { csvShape, type CsvShape, type RecordingError } from '../live/csvShape';
import { isTimeHeader, readHeader } from '../live/header';
import { numericRows } from '../live/numericRows';
import { fail, ok, type Result } from '../result';
import type { Capture } from './capture';
import { voltageColumn } from './voltageColumn';

/** More probes than any instrument has. */
const MOST_COLUMNS = 16;
const MOST_SAMPLES = 200_000_000;
/** A file is looked at until its shape is clear. */
const HEAD_BYTES = 65_536;
/** Rows are read in pieces of about this size. */
const PIECE_BYTES = 2 << 20;
const LINE_FEED = 10;
const MOST_PROBLEMS = 100;
/** A step in time this many times the usual one is a hole in the file. */
const HOLE = 8;
const LONGEST_HOLE_S = 60;

interface Column {
	name: string;
	column: number;
	factor: number;
}

export interface CaptureRead extends Capture {
	problems: { line: number; reason: string }[];
}

/** Numbers as they come, in a list that grows. */
class Growing {
	private list = new Float32Array(1 << 16);
	length = 0;

	push(value: number): void {
		if (this.length === this.list.length) {
			const wider = new Float32Array(this.list.length * 2);
			wider.set(this.list);
			this.list = wider;
		}
		this.list[this.length++] = value;
	}

	taken(): Float32Array {
		return this.list.subarray(0, this.length);
	}
}

/**
 * Reads a capture from CSV piece by piece, so that memory holds four bytes a sample however long the text is: first
 * column time (evenly spaced), then one voltage a column. Takes what `jaldi live` takes: other delimiters, a decimal comma,
 * units, notes above the header. A hole in the rows is filled with the last value and told.
 */
export class CaptureReader {
	private waiting: Uint8Array[] = [];
	private waitingBytes = 0;
	private shape: CsvShape | null = null;
	private columns: Column[] = [];
	private timeColumn = 0;
	private timeFactor = 1;
	private samples: Growing[] = [];
	private failure: RecordingError | null = null;
	private line = 0;
	private firstS = NaN;
	private lastS = NaN;
	private rows = 0;
	readonly problems: CaptureRead['problems'] = [];

	/** @returns false once the file cannot be read: the rest need not come */
	push(piece: Uint8Array): boolean {
		if (this.failure) return false;
		this.waiting.push(piece);
		this.waitingBytes += piece.length;
		if (this.waitingBytes >= (this.shape ? PIECE_BYTES : HEAD_BYTES * 2)) this.work(false);
		return this.failure === null;
	}

	end(): Result<CaptureRead, RecordingError> {
		if (!this.failure) this.work(true);
		if (this.failure) return fail(this.failure);
		const { rows, firstS, lastS, problems } = this;
		const line = this.shape?.firstLine ?? 1;
		if (rows < 2 || !(lastS > firstS))
			return fail({ line, column: 1, reason: 'expected at least two rows of numbers under the header' });
		return ok({
			rateHz: Number(((rows - 1) / (lastS - firstS)).toPrecision(7)),
			startS: firstS,
			channels: this.columns.map(({ name }, i) => ({
				name,
				volts: this.samples[i]?.taken() ?? new Float32Array()
			})),
			problems: problems.slice(0, MOST_PROBLEMS)
		});
	}

	private work(last: boolean): void {
		const bytes = joined(this.waiting);
		this.waiting = [];
		this.waitingBytes = 0;
		let from = 0;
		if (!this.shape) {
			const shape = csvShape(bytes);
			if (!shape.ok) {
				this.failure = shape.error;
				return;
			}
			this.failure = this.begin(shape.value);
			if (this.failure) return;
			from = shape.value.firstByte;
		}
		const to = last ? bytes.length : bytes.lastIndexOf(LINE_FEED) + 1;
		if (to > from) this.take(bytes.subarray(from, to));
		if (to < bytes.length) {
			const rest = bytes.slice(Math.max(to, from));
			this.waiting = [rest];
			this.waitingBytes = rest.length;
		}
	}

	private begin(shape: CsvShape): RecordingError | null {
		this.shape = shape;
		this.line = shape.firstLine;
		const { header, headerLine, units } = shape;
		const time = header.findIndex(isTimeHeader);
		if (time < 0)
			return { line: headerLine, column: 1, reason: `expected time in the first column, not "${header[0]}"` };
		this.timeColumn = time;
		this.timeFactor =
			readHeader(units?.[time] ? `${header[time]} [${units[time]}]` : (header[time] ?? ''))?.factor ?? 1;
		const taken = new Set<string>();
		for (const [column, text] of header.entries()) {
			if (column === time || text === '') continue;
			const read = voltageColumn(text, units?.[column] ?? '');
			if ('notVolts' in read) {
				this.tell(headerLine, `"${text}" is in ${read.notVolts}, no voltage: left out`);
				continue;
			}
			const { name, factor } = read;
			if (taken.has(name))
				return {
					line: headerLine,
					column: column + 1,
					reason: `"${text}" is the same channel as a column before it`
				};
			taken.add(name);
			this.columns.push({ name, column, factor });
		}
		if (this.columns.length === 0 || this.columns.length > MOST_COLUMNS)
			return {
				line: headerLine,
				column: null,
				reason:
					this.problems[0]?.reason.replace(': left out', `: expected volts, such as front_left_v`) ??
					`expected one to ${MOST_COLUMNS} columns of volts beside the time, such as front_left_v`
			};
		this.samples = this.columns.map(() => new Growing());
		return null;
	}

	private take(bytes: Uint8Array): void {
		const { shape } = this;
		if (!shape) return;
		const part = { ...shape, firstByte: 0, firstLine: this.line };
		const { time, values, lines, problems } = numericRows(bytes, part, {
			time: this.timeColumn,
			values: this.columns.map(({ column }) => column)
		});
		for (const { line, reason } of problems) this.tell(line, reason);
		for (let i = 0; i < time.length; i++) {
			const now = (time[i] ?? 0) * this.timeFactor;
			if (this.rows === 0) this.firstS = now;
			else if (!this.fits(now, lines[i] ?? 0)) continue;
			this.lastS = now;
			this.rows += 1;
			for (const [c, { factor }] of this.columns.entries()) {
				const value = (values[c]?.[i] ?? NaN) * factor;
				const samples = this.samples[c];
				// A cell that holds no number keeps the line where it was.
				if (Number.isNaN(value))
					this.tell(lines[i] ?? 0, `no number for ${this.columns[c]?.name}: the value before it is kept`);
				samples?.push(Number.isNaN(value) ? (samples.taken().at(-1) ?? 0) : value);
			}
		}
		if (this.rows * this.columns.length > MOST_SAMPLES)
			this.failure = {
				line: this.line,
				column: null,
				reason: `more than ${MOST_SAMPLES / 1e6} million samples: cut the file`
			};
		this.line += countLines(bytes);
	}

	/** Whether a row follows the one before; fills a hole between the two. */
	private fits(now: number, line: number): boolean {
		const { lastS, firstS, rows } = this;
		if (now < lastS) {
			this.tell(line, 'time runs backwards here');
			return false;
		}
		if (rows < 16) return true;
		const usual = (lastS - firstS) / (rows - 1);
		if (now - lastS < HOLE * usual || now - lastS < 1e-12) return true;
		const missing = Math.round((now - lastS) / usual) - 1;
		this.tell(line, `${missing} rows are missing before this one`);
		if (now - lastS > LONGEST_HOLE_S) {
			this.failure = { line, column: this.timeColumn + 1, reason: 'time jumps by more than a minute here' };
			return false;
		}
		for (const samples of this.samples) {
			const held = samples.taken().at(-1) ?? 0;
			for (let k = 0; k < missing; k++) samples.push(held);
		}
		this.rows += missing;
		return true;
	}

	private tell(line: number, reason: string): void {
		if (this.problems.length < MOST_PROBLEMS) this.problems.push({ line, reason });
	}
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
	if (pieces.length === 1 && pieces[0]) return pieces[0];
	const all = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
	let at = 0;
	for (const piece of pieces) {
		all.set(piece, at);
		at += piece.length;
	}
	return all;
}

function countLines(bytes: Uint8Array): number {
	let count = 0;
	for (const byte of bytes) if (byte === LINE_FEED) count += 1;
	return count;
}

/** A whole file at once. */
export function readCapture(file: Uint8Array | string): Result<CaptureRead, RecordingError> {
	const reader = new CaptureReader();
	reader.push(typeof file === 'string' ? new TextEncoder().encode(file) : file);
	return reader.end();
}

/** A capture as CSV: time and volts with as many digits as tell them apart. */
export function writeCapture({ rateHz, startS, channels }: Capture, from = 0, to = Infinity): string {
	const last = Math.min(to, channels[0]?.volts.length ?? 0);
	const digits = Math.min(9, Math.max(3, Math.ceil(Math.log10(rateHz)) + 2));
	const lines = [['time_s', ...channels.map(({ name }) => `${name}_v`)].join(',')];
	for (let i = from; i < last; i++) {
		const volts = channels.map((channel) => Number((channel.volts[i] ?? 0).toPrecision(6)));
		lines.push([(startS + i / rateHz).toFixed(digits), ...volts].join(','));
	}
	return `${lines.join('\n')}\n`;
}
