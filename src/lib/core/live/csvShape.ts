import Papa from 'papaparse';
import { fail, ok, type Result } from '../result';
import { isTimeHeader, unitFactor } from './header';

/** Why a file is no recording: where, and what was expected. */
export interface RecordingError {
	line: number;
	column: number | null;
	reason: string;
}

/** How a file of numbers is written, seen from its first lines. */
export interface CsvShape {
	delimiter: string;
	/** `10,5` is a number. */
	decimalComma: boolean;
	header: string[];
	/** Line of the header, from 1. */
	headerLine: number;
	/** Units that stand in a row of their own below the header; null where there is none. */
	units: string[] | null;
	/** Line of the first row of numbers, from 1, and its first byte. */
	firstLine: number;
	firstByte: number;
	/** The first rows, as text. */
	sample: string[][];
}

const no = (line: number, column: number | null, reason: string) => fail({ line, column, reason });

/** Enough to see the shape; a header line longer than this is none. */
const LOOK_BYTES = 65_536;
const LOOK_LINES = 60;
const SAMPLE_ROWS = 8;
const LINE_FEED = 10;
const RETURN = 13;

export function csvShape(bytes: Uint8Array): Result<CsvShape, RecordingError> {
	const start = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0;
	const look = bytes.subarray(start, start + LOOK_BYTES);
	if (look.includes(0)) return no(1, null, 'this is no text: expected CSV in UTF-8');
	const text = new TextDecoder().decode(look);
	if (text.trim() === '') return no(1, null, 'the file is empty: expected a header and rows of numbers');
	const lineEnd = /\r\n|\n|\r/.exec(text);
	if (!lineEnd && bytes.length - start > LOOK_BYTES) {
		return no(
			1,
			null,
			`the first line is longer than ${LOOK_BYTES} bytes: expected a header and rows of numbers`
		);
	}
	const whole = bytes.length - start <= LOOK_BYTES ? text : text.slice(0, lastLineEnd(text));
	const { data, meta } = Papa.parse<string[]>(whole, {
		delimitersToGuess: [',', ';', '\t', '|'],
		preview: LOOK_LINES
	});
	const delimiter = meta.delimiter || ',';
	const rows = data.map((row) => row.map((cell) => cell.trim()));
	const decimalComma = delimiter !== ',';
	const headerAt = headerRow(rows, decimalComma);
	const header = rows[headerAt] ?? [];
	if (header.length < 2)
		return no(headerAt + 1, 1, 'expected a header with time first and at least one channel');
	if (header.every((cell) => isNumber(cell, decimalComma)))
		return no(headerAt + 1, 1, 'expected a header such as time_s,front_left_kmh; this row holds numbers');
	const below = rows[headerAt + 1] ?? [];
	const units = isUnitRow(below) ? below : null;
	const firstRow = headerAt + (units ? 2 : 1);
	return ok({
		delimiter,
		decimalComma,
		header,
		headerLine: headerAt + 1,
		units,
		firstLine: firstRow + 1,
		firstByte: start + byteOfLine(bytes.subarray(start), firstRow),
		sample: rows.slice(firstRow, firstRow + SAMPLE_ROWS)
	});
}

const lastLineEnd = (text: string) => Math.max(text.lastIndexOf('\n'), text.lastIndexOf('\r'), 0);
const isNumber = (cell: string, decimalComma: boolean) =>
	cell !== '' && !Number.isNaN(Number(decimalComma ? cell.replace(',', '.') : cell));

/** The header: the first row that names a time before rows of numbers; else the first that is not empty. */
function headerRow(rows: string[][], decimalComma: boolean): number {
	const first = rows.findIndex((row) => row.some((cell) => cell !== ''));
	const named = rows.findIndex(
		(row) => row.length >= 2 && row.some(isTimeHeader) && !row.some((cell) => isNumber(cell, decimalComma))
	);
	// Notes of the tool that wrote the file may stand above it.
	return named > first ? named : Math.max(0, first);
}

function isUnitRow(row: readonly string[]): boolean {
	const words = row.map((cell) => cell.replace(/^[[(]|[\])]$/g, '')).filter((cell) => cell !== '');
	return words.length >= 2 && words.every((word) => !/^\d/.test(word) && unitFactor(word) !== null);
}

/** Byte at which a line begins, counted from 0. Lines end with LF, CR LF or CR. */
function byteOfLine(bytes: Uint8Array, line: number): number {
	let at = 0;
	for (let n = 0; n < line && at < bytes.length; n++) {
		while (at < bytes.length && bytes[at] !== LINE_FEED && bytes[at] !== RETURN) at += 1;
		at += bytes[at] === RETURN && bytes[at + 1] === LINE_FEED ? 2 : 1;
	}
	return Math.min(at, bytes.length);
}
