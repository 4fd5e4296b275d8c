import type { CsvShape } from './csvShape';
import { isTimeHeader, readHeader, unitFactor, type Column } from './header';
import { isWheel } from './recording';

/** What is read of a file, column by column. */
export interface ColumnMapping {
	/** Place of the time's column and the factor of its unit to seconds; null: told from the numbers themselves. */
	time: { column: number; factor: number | null };
	channels: { column: number; channel: string; factor: number }[];
}

/** One column as it looks, and why somebody should look again. */
export interface ColumnGuess {
	header: string;
	/** `time`, a channel, or null: left out. */
	as: string | null;
	unit: string | null;
	/** Null where the unit is not known. */
	factor: number | null;
	/** Null where there is nothing to ask. */
	question: string | null;
}

/** What a channel may be called: `front_left`, `oil_temp`. */
export const CHANNEL = /^[a-z0-9][a-z0-9_]{0,59}$/;
export const MOST_CHANNELS = 64;

/** Units that a person may choose between, and their factor to ours. */
export const UNIT_CHOICES: Readonly<Record<string, number>> = {
	'km/h': 1,
	mph: 1.609344,
	'm/s': 3.6,
	s: 1,
	ms: 0.001,
	'°': 1,
	rad: 180 / Math.PI,
	'°/s': 1,
	'rad/s': 180 / Math.PI,
	g: 1,
	'm/s²': 1 / 9.80665,
	V: 1,
	mV: 0.001,
	kPa: 1,
	bar: 100,
	'on/off': 1
};

/** Places of the columns in an order that does not depend on the file's: by header, then unit, then as they stand. */
function setOrder({ header, units }: Header): number[] {
	const key = (at: number) => JSON.stringify([(header[at] ?? '').toLowerCase(), units?.[at] ?? '']);
	return header.map((_, at) => at).sort((a, b) => (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : a - b));
}
type Header = Pick<CsvShape, 'header' | 'units'>;

/** Same headers, in whatever order, same answers: what a mapping is remembered by. */
export const headerKey = (shape: Header): string =>
	JSON.stringify([
		'set',
		setOrder(shape).map((at) => [(shape.header[at] ?? '').toLowerCase(), shape.units?.[at] ?? ''])
	]);

const moved = ({ time, channels }: ColumnMapping, to: (column: number) => number): ColumnMapping => ({
	time: { ...time, column: to(time.column) },
	channels: channels.map((one) => ({ ...one, column: to(one.column) }))
});

/** A mapping as it is remembered: its columns by their place among the headers of the set. */
export function rememberedMapping(mapping: ColumnMapping, shape: Header): ColumnMapping {
	const order = setOrder(shape);
	return moved(mapping, (column) => order.indexOf(column));
}

/** The inverse of {@link rememberedMapping}, for a file with the same headers. */
export function recalledMapping(mapping: ColumnMapping, shape: Header): ColumnMapping {
	const order = setOrder(shape);
	return moved(mapping, (place) => order[place] ?? -1);
}

const withUnit = (column: Column, unit: string | null): Column => {
	const word = unit?.replace(/^[[(]|[\])]$/g, '') ?? '';
	const factor = word === '' ? null : unitFactor(word);
	return factor === null ? column : { ...column, unit: word, factor };
};

/** What each column seems to be. */
export function guessColumns(shape: CsvShape): ColumnGuess[] {
	const timeAt = shape.header.findIndex(isTimeHeader);
	const taken = new Set<string>();
	return shape.header.map((header, i): ColumnGuess => {
		if (header === '') return { header, as: null, unit: null, factor: null, question: null };
		const read = readHeader(header);
		const column = read && withUnit(read, shape.units?.[i] ?? null);
		if (i === timeAt) {
			const unit = column?.unit ?? null;
			return {
				header,
				as: 'time',
				unit,
				factor: unit === null ? null : (column?.factor ?? null),
				question: null
			};
		}
		if (!column) {
			return {
				header,
				as: null,
				unit: null,
				factor: null,
				question: `The unit of "${header}" is not known here.`
			};
		}
		const { channel, factor, unit, known } = column;
		// A name that nobody knows is kept as it is written, if it can be a channel's, once.
		if (!known && (!CHANNEL.test(channel) || taken.has(channel))) {
			return { header, as: null, unit, factor, question: null };
		}
		if (known && taken.has(channel)) {
			return {
				header,
				as: null,
				unit,
				factor,
				question: `"${header}" looks like ${channel}, as does a column before it.`
			};
		}
		taken.add(channel);
		const question = isWheel(channel) && unit === null ? `"${header}" names no unit: km/h is taken.` : null;
		return { header, as: channel, unit, factor, question };
	});
}

/** @returns null where there is no time or no wheel to read */
export function mappingOf(guesses: readonly ColumnGuess[]): ColumnMapping | null {
	const time = guesses.findIndex(({ as }) => as === 'time');
	const channels = guesses.flatMap(({ as, factor }, column) =>
		as === null || as === 'time' ? [] : [{ column, channel: as, factor: factor ?? 1 }]
	);
	// Of more columns than a recording holds the wheels come first, then the order of the file.
	channels.sort((a, b) => Number(isWheel(b.channel)) - Number(isWheel(a.channel)));
	channels.splice(MOST_CHANNELS);
	channels.sort((a, b) => a.column - b.column);
	if (time < 0 || !channels.some(({ channel }) => isWheel(channel))) return null;
	return { time: { column: time, factor: guesses[time]?.factor ?? null }, channels };
}
