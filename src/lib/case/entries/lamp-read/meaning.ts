import { lampMeaning, lampTables, type LampMeaning } from '../../../../../library/lampTables';
import type { LampRead } from './payload';

/** What a lamp's code says by the table it was read by; null where none is known. */
export const lampMeaningOf = ({ table, groups }: LampRead): LampMeaning | null => {
	const known = table === null ? undefined : lampTables.get(table);
	return known ? lampMeaning(known, groups) : null;
};
