import { cellNumber, cellTime } from './cellValue';
import type { CsvShape } from './csvShape';

/** Which columns of a file are wanted, by their place. */
export interface WantedColumns {
	time: number;
	/** Place of each channel's column. */
	values: readonly number[];
}

export interface NumericRows {
	/** As written, in the file's unit; may repeat or run backwards. */
	time: Float64Array;
	values: Float64Array[];
	/** Line of each row. */
	lines: Int32Array;
	problems: { line: number; reason: string }[];
}

const MOST_PROBLEMS = 100;
const LINE_FEED = 10;
const RETURN = 13;
const QUOTE = 34;
const SPACE = 32;
const MINUS = 45;
const POINT = 46;
const COMMA = 44;
const ZERO = 48;
const NINE = 57;
/** Digits that a double holds without loss. */
const MOST_DIGITS = 15;
const TENS = Array.from({ length: 23 }, (_, i) => 10 ** i);

/**
 * Reads rows of numbers from bytes, without making a text of each cell: a general CSV reader does a tenth of this speed.
 * Plain decimal numbers are read digit by digit, everything else (quotes, clocks, words, exponents) as text.
 *
 * @param wanted columns in any order
 */
export function numericRows(file: Uint8Array, shape: CsvShape, wanted: WantedColumns): NumericRows {
	const bytes = endedByLineFeed(file);
	const delimiter = shape.delimiter.charCodeAt(0);
	const comma = shape.decimalComma ? COMMA : POINT;
	// The time comes first among what is kept, then the channels.
	const kept = [wanted.time, ...wanted.values];
	const needed = Math.max(...kept);
	const slots = new Int32Array(needed + 1).fill(-1);
	for (const [slot, column] of kept.entries()) slots[column] = slot;
	const most = countLines(bytes, shape.firstByte);
	const table = new Float64Array(most * kept.length).fill(NaN);
	const lines = new Int32Array(most);
	const problems: NumericRows['problems'] = [];
	const skip = (line: number, reason: string) => {
		if (problems.length < MOST_PROBLEMS) problems.push({ line, reason });
	};
	const text = new TextDecoder();
	const { length } = bytes;
	let [count, line, at] = [0, shape.firstLine - 1, shape.firstByte];
	while (at < length) {
		line += 1;
		const rowFrom = at;
		let column = 0;
		for (;;) {
			const slot = column <= needed ? (slots[column] ?? -1) : -1;
			const begin = at;
			let byte = bytes[at] ?? LINE_FEED;
			if (slot >= 0) {
				let sign = 1;
				if (byte === MINUS) {
					sign = -1;
					byte = bytes[++at] ?? LINE_FEED;
				}
				let mantissa = 0;
				const digitsFrom = at;
				while (byte >= ZERO && byte <= NINE) {
					mantissa = mantissa * 10 + (byte - ZERO);
					byte = bytes[++at] ?? LINE_FEED;
				}
				let scale = 0;
				if (byte === POINT || byte === comma) {
					const pointAt = at;
					byte = bytes[++at] ?? LINE_FEED;
					while (byte >= ZERO && byte <= NINE) {
						mantissa = mantissa * 10 + (byte - ZERO);
						byte = bytes[++at] ?? LINE_FEED;
					}
					scale = at - pointAt - 1;
				}
				const read = at - digitsFrom;
				const ends = byte === delimiter || byte === LINE_FEED || byte === RETURN;
				if (ends && read > 0 && read <= MOST_DIGITS && (scale > 0 || bytes[at - 1] !== POINT)) {
					table[slot * most + count] = (sign * mantissa) / (TENS[scale] ?? 1);
				} else {
					at = cellEnd(bytes, begin, delimiter);
					byte = bytes[at] ?? LINE_FEED;
					const cell = unquoted(text.decode(bytes.subarray(begin, at)));
					table[slot * most + count] =
						slot === 0 ? cellTime(cell, shape.decimalComma) : cellNumber(cell, shape.decimalComma);
				}
			} else {
				at = cellEnd(bytes, at, delimiter);
				byte = bytes[at] ?? LINE_FEED;
			}
			if (byte !== delimiter) break;
			at += 1;
			column += 1;
		}
		const rowTo = at;
		at += bytes[at] === RETURN && bytes[at + 1] === LINE_FEED ? 2 : 1;
		const time = table[count] ?? NaN;
		if (time !== time) {
			for (let slot = 1; slot < kept.length; slot++) table[slot * most + count] = NaN;
			const words = text.decode(bytes.subarray(rowFrom, rowTo)).trim();
			const cell = unquoted(words.split(shape.delimiter)[wanted.time] ?? '');
			if (words !== '') skip(line, `"${cell.slice(0, 30)}" is no time`);
			continue;
		}
		if (column < needed) skip(line, `the row has ${column + 1} of ${shape.header.length} columns: cut off?`);
		lines[count] = line;
		count += 1;
	}
	return {
		time: table.subarray(0, count),
		values: wanted.values.map((_, i) => table.subarray((i + 1) * most, (i + 1) * most + count)),
		lines: lines.subarray(0, count),
		problems
	};
}

/** So that the last row ends like every other. */
function endedByLineFeed(file: Uint8Array): Uint8Array {
	if (file.at(-1) === LINE_FEED) return file;
	const ended = new Uint8Array(file.length + 1);
	ended.set(file);
	ended[file.length] = LINE_FEED;
	return ended;
}

/** Upper bound of the rows that follow. */
function countLines(bytes: Uint8Array, from: number): number {
	let count = 1;
	let returns = 0;
	for (let i = from; i < bytes.length; i++) {
		const byte = bytes[i];
		if (byte === LINE_FEED) count += 1;
		else if (byte === RETURN) returns += 1;
	}
	return Math.max(count, returns + 1);
}

function cellEnd(bytes: Uint8Array, from: number, delimiter: number): number {
	let at = from;
	while (bytes[at] === SPACE) at += 1;
	if (bytes[at] === QUOTE) {
		at += 1;
		while (at < bytes.length && bytes[at] !== QUOTE && bytes[at] !== LINE_FEED) at += 1;
	}
	while (at < bytes.length && bytes[at] !== delimiter && bytes[at] !== LINE_FEED && bytes[at] !== RETURN)
		at += 1;
	return at;
}

const unquoted = (cell: string) => cell.trim().replace(/^"(.*)"$/, '$1');
