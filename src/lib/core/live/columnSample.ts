import { cellTime } from './cellValue';
import type { NumberColumns } from './columnLikeness';
import type { CsvShape } from './csvShape';
import { numericRows } from './numericRows';

/** So much of a file shows how its columns behave. */
const LOOK_BYTES = 4_000_000;
const MOST_ROWS = 6000;
const LINE_FEED = 10;

/** The columns of a file as numbers, from its beginning, at most some thousand rows spread over it; a clock in seconds. */
export function columnSample(file: Uint8Array, shape: CsvShape): NumberColumns {
	const all = shape.header.map((_, at) => at);
	const row = shape.sample[0] ?? [];
	const clock = all.find((at) => !Number.isNaN(cellTime(row[at] ?? '', shape.decimalComma)));
	if (clock === undefined) return all.map(() => new Float64Array());
	const end = file.length > LOOK_BYTES ? file.lastIndexOf(LINE_FEED, LOOK_BYTES) + 1 : file.length;
	const { time, values } = numericRows(file.subarray(0, end > 0 ? end : file.length), shape, {
		time: clock,
		values: all.filter((at) => at !== clock)
	});
	const stride = Math.ceil(time.length / MOST_ROWS) || 1;
	const thin = (column: Float64Array) => (stride === 1 ? column : column.filter((_, i) => i % stride === 0));
	return all.map((at) => thin(at === clock ? time : (values[at < clock ? at : at - 1] ?? time)));
}
