import { inUnits, type Units } from '../../core/units/units';
import type { CaseReport } from './report';

/** What somebody said or typed, what names something, and what is worked with further: it stays as it is. */
const AS_IT_IS = new Set([
	'complaint',
	'cost',
	'hash',
	'id',
	'key',
	'note',
	'number',
	'photos',
	'signature',
	'traces'
]);

function told(value: unknown, units: Units): unknown {
	if (typeof value === 'string') return inUnits(value, units);
	if (Array.isArray(value)) return value.map((one) => told(one, units));
	if (typeof value !== 'object' || value === null) return value;
	const isQuote = 'theirs' in value;
	return Object.fromEntries(
		Object.entries(value).map(([name, part]) => [
			name,
			AS_IT_IS.has(name) || (isQuote && name === 'detail') ? part : told(part, units)
		])
	);
}

/** A report with our own sentences in those units. Numbers stay as they are kept: whoever shows them puts their unit on. */
export const reportInUnits = (report: CaseReport, units: Units): CaseReport =>
	told(report, units) as CaseReport;
