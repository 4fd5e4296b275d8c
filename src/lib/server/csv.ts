import Papa from 'papaparse';
import { FORMULA } from '../core/formula';

/** Rows as CSV that no spreadsheet runs: values that are no text stand as JSON. */
export const csvOf = (header: readonly string[], rows: readonly (readonly unknown[])[]): string =>
	`${Papa.unparse(
		[
			header,
			...rows.map((row) => row.map((value) => (typeof value === 'object' ? JSON.stringify(value) : value)))
		],
		{ newline: '\n', escapeFormulae: FORMULA }
	)}\n`;
