import Papa from 'papaparse';
import { fail, ok, type Result } from '../result';
import { isWheel, type Recording } from './recording';
import { readHeader, type Column } from './header';

/** Why a file is no recording: where, and what was expected. */
export interface RecordingError {
	line: number;
	column: number | null;
	reason: string;
}

const no = (line: number, column: number | null, reason: string): { ok: false; error: RecordingError } =>
	fail({ line, column, reason });

/** More rows than this that go back in time are no slip: the file is not in order. */
const MOST_BACKWARDS_SHARE = 0.05;
const MOST_PROBLEMS = 100;
/** `12:34:56.789`, also without hours. */
const CLOCK = /^(?:(\d+):)?(\d{1,2}):(\d{1,2}(?:[.,]\d+)?)$/;
const NOTHING = /^(|-+|nan|null|n\/a|na|invalid|error|--\.-+)$/i;

/**
 * Reads live data from CSV: first column time, then one channel a column with its unit in the header. Takes commas,
 * semicolons or tabs, a decimal comma where it is no separator, a byte order mark, time in seconds, as a clock or since an
 * epoch.
 */
export function readRecording(text: string): Result<Recording, RecordingError> {
	const whole = text.startsWith('\uFEFF') ? text.slice(1) : text;
	if (whole.trim() === '') return no(1, null, 'the file is empty: expected a header and rows of numbers');
	if (whole.includes('\0')) return no(1, null, 'this is no text: expected CSV');
	const { data, meta } = Papa.parse<string[]>(whole, { delimitersToGuess: [',', ';', '\t', '|'] });
	const decimalComma = meta.delimiter !== ',';
	const headerAt = data.findIndex((row) => row.some((cell) => cell.trim() !== ''));
	const header = (data[headerAt] ?? []).map((cell) => cell.trim());
	if (header.length < 2)
		return no(headerAt + 1, 1, 'expected a header with time first and at least one channel');
	if (header.every((cell) => !Number.isNaN(toNumber(cell, decimalComma)))) {
		return no(headerAt + 1, 1, 'expected a header such as time_s,front_left_kmh; this row holds numbers');
	}
	const columns: (Column | null)[] = [];
	for (const [i, cell] of header.entries()) {
		const column = cell === '' ? null : readHeader(cell);
		if (cell !== '' && !column) return no(headerAt + 1, i + 1, `"${cell}" has a unit that is not known here`);
		columns.push(column);
	}
	if (!/time|^t$|^t[_[( ]|clock|stamp/i.test(header[0] ?? '')) {
		return no(headerAt + 1, 1, `expected time in the first column, not "${header[0]}"`);
	}
	const double = columns.findIndex(
		(one, i) => i > 0 && one && columns.findIndex((other, j) => j > 0 && other?.channel === one.channel) < i
	);
	if (double > 0)
		return no(headerAt + 1, double + 1, `"${header[double]}" is the same channel as a column before it`);
	return readRows(data, headerAt, columns, decimalComma);
}

function readRows(
	rows: string[][],
	headerAt: number,
	columns: (Column | null)[],
	decimalComma: boolean
): Result<Recording, RecordingError> {
	const time: number[] = [];
	const values: number[][] = columns.map(() => []);
	const problems: Recording['problems'] = [];
	let backwards = 0;
	let lastRow: string[] = [];
	const skip = (line: number, reason: string) => {
		if (problems.length < MOST_PROBLEMS) problems.push({ line, reason });
	};
	const timeFactor = columns[0]?.factor ?? 1;
	for (let i = headerAt + 1; i < rows.length; i++) {
		const row = rows[i] ?? [];
		if (row.length === 1 && (row[0] ?? '').trim() === '') continue;
		const at = toTime(row[0] ?? '', decimalComma) * timeFactor;
		if (Number.isNaN(at)) {
			skip(i + 1, `"${(row[0] ?? '').slice(0, 30)}" is no time`);
			continue;
		}
		const last = time.at(-1);
		if (last !== undefined && at <= last) {
			const same = at === last && row.join('\u001F') === lastRow.join('\u001F');
			if (!same) backwards += 1;
			skip(i + 1, same ? 'the row stands twice' : 'time runs backwards here');
			continue;
		}
		if (row.length < columns.length)
			skip(i + 1, `the row has ${row.length} of ${columns.length} columns: cut off?`);
		lastRow = row;
		time.push(at);
		for (let c = 1; c < columns.length; c++) {
			const column = columns[c];
			if (column) values[c]?.push(toNumber(row[c] ?? '', decimalComma) * column.factor);
		}
	}
	if (time.length < 2) return no(headerAt + 2, 1, 'expected at least two rows of numbers under the header');
	if (backwards > MOST_BACKWARDS_SHARE * time.length) {
		return no(problems[0]?.line ?? 1, 1, 'time runs backwards again and again: the rows are not in order');
	}
	const first = time[0] ?? 0;
	const channels = new Map<string, Float64Array>();
	for (const [c, column] of columns.entries()) {
		if (c > 0 && column) channels.set(column.channel, Float64Array.from(values[c] ?? []));
	}
	if (![...channels.keys()].some(isWheel)) {
		return no(
			headerAt + 1,
			null,
			'no wheel among the columns: expected names such as front_left_kmh or axle1_left_kmh'
		);
	}
	return ok({ timeS: Float64Array.from(time, (t) => t - first), channels, problems });
}

function toNumber(cell: string, decimalComma: boolean): number {
	// Nearly every cell is a plain number; an empty one would count as 0.
	const plain = Number(cell);
	if (!Number.isNaN(plain) && (plain !== 0 || cell.trim() !== '')) return plain;
	const text = cell.trim();
	if (NOTHING.test(text)) return NaN;
	if (/^(on|true|yes|pressed)$/i.test(text)) return 1;
	if (/^(off|false|no|released)$/i.test(text)) return 0;
	return Number(decimalComma ? text.replace(',', '.') : text);
}

function toTime(cell: string, decimalComma: boolean): number {
	const plain = toNumber(cell, decimalComma);
	if (!Number.isNaN(plain)) return plain;
	const clock = CLOCK.exec(cell.trim());
	if (!clock) return NaN;
	const [, hours = '0', minutes = '0', seconds = '0'] = clock;
	return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(',', '.'));
}
