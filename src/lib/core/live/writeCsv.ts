import Papa from 'papaparse';
import { FORMULA } from '../formula';
import type { Chunk } from './chunk';

/** Unit in the header of a channel, as `jaldi live` reads it; wheels and speeds are km/h. */
const UNITS: Readonly<Record<string, string>> = {
	steering: 'deg',
	yaw: 'degps',
	lateral: 'g',
	supply: 'v',
	brake_pressure: 'kpa',
	brake_switch: ''
};

const headerOf = (channel: string) => {
	const unit = UNITS[channel] ?? 'kmh';
	return unit === '' ? channel : `${channel}_${unit}`;
};
const cellOf = (value: number) => (Number.isNaN(value) ? '' : String(Math.round(value * 1e6) / 1e6));

/** A recording as CSV: `time_s`, then one channel a column with its unit; empty where nothing was read. */
export function writeCsv({ timeS, channels }: Chunk): string {
	const columns = [...channels.values()];
	const rows = Array.from(timeS, (t, i) => [cellOf(t), ...columns.map((column) => cellOf(column[i] ?? NaN))]);
	return `${Papa.unparse([['time_s', ...[...channels.keys()].map(headerOf)], ...rows], { newline: '\n', escapeFormulae: FORMULA })}\n`;
}
