import type { CodeList } from '../../core/uds/readCodes';
import { MOST } from '../entries/shapes';
import type { FoundModule } from '../entries/modules-found/payload';

/** Values that a module told, by identifier; null where it said that it has none. */
export type ToldValues = ReadonlyMap<string, string | number | null>;

const LONGEST_TOLD = 120;

/** What a module says of itself: ISO 14229-1's identifiers F187 part, F190 vehicle, F195 software, F197 name; supply, tyre and ring. */
export function toldOfItself(address: string, told: ToldValues): FoundModule {
	const text = (id: string): string | null => {
		const value = told.get(id) ?? null;
		return value === null || value === '' ? null : String(value).slice(0, LONGEST_TOLD);
	};
	const number = (id: string): number | null => {
		const value = told.get(id);
		return typeof value === 'number' ? value : null;
	};
	const coded = { circumferenceMm: number('D150'), teeth: number('D151') };
	return {
		address,
		silent: null,
		name: text('F197'),
		software: text('F195'),
		part: text('F187'),
		vin: text('F190'),
		volts: number('F442'),
		...(coded.circumferenceMm === null && coded.teeth === null ? {} : { coded }),
		tells: [...told.keys()],
		knows: []
	};
}

/** Codes that a module can set, each once. */
export const codesKnown = ({ codes }: CodeList): string[] =>
	[...new Set(codes.map(({ dtc }) => dtc))].slice(0, MOST.codes);
