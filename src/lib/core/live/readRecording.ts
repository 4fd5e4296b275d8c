import { fail, ok, type Result } from '../result';
import { cellTime, epochFactor } from './cellValue';
import { guessColumns, mappingOf, type ColumnMapping } from './columnMapping';
import { csvShape, type CsvShape, type RecordingError } from './csvShape';
import { isTimeHeader } from './header';
import { numericRows, type NumericRows } from './numericRows';
import type { Recording } from './recording';

const no = (line: number, column: number | null, reason: string): { ok: false; error: RecordingError } =>
	fail({ line, column, reason });

/** More rows than this that go back in time are no slip: the file is not in order. */
const MOST_BACKWARDS_SHARE = 0.05;
/** So many rows at the time of the row before mean a clock too coarse for the rows, not rows too many. */
const COARSE_SHARE = 0.2;
const MOST_PROBLEMS = 100;
const DAY_S = 86_400;
/** A clock that falls by nearly a day has passed midnight. */
const MIDNIGHT_FALL_S = 80_000;

/**
 * Reads live data from CSV: a column of time, then one channel a column with its unit in the header. Takes commas,
 * semicolons or tabs, a decimal comma where it is no separator, a byte order mark, notes above the header and units below
 * it, time in seconds, as a clock or since an epoch.
 *
 * @param mapping what the columns are; told from the header where absent
 */
export function readRecording(
	file: Uint8Array | string,
	mapping?: ColumnMapping
): Result<Recording, RecordingError> {
	const bytes = typeof file === 'string' ? new TextEncoder().encode(file) : file;
	const shape = csvShape(bytes);
	if (!shape.ok) return shape;
	const columns = mapping ? ok(mapping) : columnsOf(shape.value);
	if (!columns.ok) return columns;
	const { time, channels } = columns.value;
	const rows = numericRows(bytes, shape.value, {
		time: time.column,
		values: channels.map(({ column }) => column)
	});
	const factor = time.factor ?? epochFactor(firstTime(shape.value, time.column));
	return clocked(rows, columns.value, factor, shape.value);
}

/** What the header says, or what is wrong with it. */
function columnsOf(shape: CsvShape): Result<ColumnMapping, RecordingError> {
	const { header, headerLine } = shape;
	if (!isTimeHeader(header[0] ?? '') && !header.some(isTimeHeader))
		return no(headerLine, 1, `expected time in the first column, not "${header[0]}"`);
	const guesses = guessColumns(shape);
	for (const [i, { as, question }] of guesses.entries()) {
		if (as !== null || question === null) continue;
		const double = question.includes('as does a column before it');
		return no(
			headerLine,
			i + 1,
			double
				? `"${header[i]}" is the same channel as a column before it`
				: `"${header[i]}" has a unit that is not known here`
		);
	}
	const mapping = mappingOf(guesses);
	if (mapping) return ok(mapping);
	return no(
		headerLine,
		null,
		'no wheel among the columns: expected names such as front_left_kmh or axle1_left_kmh'
	);
}

const firstTime = ({ sample, decimalComma }: CsvShape, column: number): number =>
	cellTime(sample[0]?.[column] ?? '', decimalComma);

/** Puts the rows on a rising clock from zero; what stands twice or runs backwards is left out and told. */
function clocked(
	rows: NumericRows,
	{ channels }: ColumnMapping,
	factor: number,
	{ firstLine }: CsvShape
): Result<Recording, RecordingError> {
	const { time, values, lines } = rows;
	const problems = [...rows.problems];
	const skip = (line: number, reason: string) => {
		if (problems.length < MOST_PROBLEMS) problems.push({ line, reason });
	};
	const keep = new Int32Array(time.length);
	const at = new Float64Array(time.length);
	const coarse = isCoarse(time, values);
	let [kept, backwards, midnights] = [0, 0, 0];
	for (let i = 0; i < time.length; i++) {
		let now = (time[i] ?? 0) * factor + midnights * DAY_S;
		const last = kept > 0 ? (at[kept - 1] ?? 0) : -Infinity;
		if (last - now > MIDNIGHT_FALL_S && last - now <= DAY_S) {
			midnights += 1;
			now += DAY_S;
		}
		const line = lines[i] ?? 0;
		const before = keep[kept - 1] ?? 0;
		if (now < last || (now === last && !coarse)) {
			const same = now === last && sameRow(values, i, before);
			if (!same) backwards += 1;
			skip(line, same ? 'the row stands twice' : 'time runs backwards here');
			continue;
		}
		if (now === last && sameRow(values, i, before) && !coarse) continue;
		keep[kept] = i;
		at[kept++] = now;
	}
	if (kept < 2) return no(firstLine, 1, 'expected at least two rows of numbers under the header');
	if (backwards > MOST_BACKWARDS_SHARE * kept) {
		return no(problems[0]?.line ?? 1, 1, 'time runs backwards again and again: the rows are not in order');
	}
	const first = at[0] ?? 0;
	const timeS = at.subarray(0, kept).map((t) => t - first);
	if (coarse) spread(timeS);
	const whole = kept === time.length;
	return ok({
		timeS,
		channels: new Map(
			channels.map(({ channel, factor: toOurs }, c) => {
				const column = values[c] ?? new Float64Array();
				const own = whole
					? column
					: Float64Array.from({ length: kept }, (_, n) => column[keep[n] ?? 0] ?? NaN);
				return [channel, toOurs === 1 ? own : own.map((value) => value * toOurs)];
			})
		),
		problems: problems.sort((a, b) => a.line - b.line)
	});
}

const sameRow = (values: readonly Float64Array[], a: number, b: number): boolean =>
	values.every((column) => Object.is(column[a], column[b]));

/** Whether many different rows stand at one time. */
function isCoarse(time: Float64Array, values: readonly Float64Array[]): boolean {
	let equal = 0;
	for (let i = 1; i < time.length; i++) if (time[i] === time[i - 1] && !sameRow(values, i, i - 1)) equal += 1;
	return equal > COARSE_SHARE * time.length;
}

/** Rows at one time are laid evenly up to the next; those at the end as far apart as the ones before. */
function spread(timeS: Float64Array): void {
	let gap = 0;
	for (let i = 0; i < timeS.length;) {
		let to = i + 1;
		while (to < timeS.length && timeS[to] === timeS[i]) to += 1;
		const from = timeS[i] ?? 0;
		if (to < timeS.length) gap = ((timeS[to] ?? 0) - from) / (to - i);
		for (let n = 1; n < to - i; n++) timeS[i + n] = from + n * gap;
		i = to;
	}
}
