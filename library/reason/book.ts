import { z } from 'zod';
import { faults } from '../faults';
import { repairs } from '../repairs';
import { libraryWeight } from './odds';
import { testKinds } from './tests';

/** What a shop has changed of the library's own numbers. What is not named here is the library's. */
const Minutes = z.number().min(0.5, 'half a minute at the least').max(600, 'ten hours at the most');
export const ReasonBook = z.strictObject({
	/** Goes up by one with every change. */
	version: z.number().int().min(0),
	tests: z.record(z.string(), Minutes),
	repairs: z.record(
		z.string(),
		z.strictObject({ minutes: Minutes, price: z.number().min(0).max(1_000_000) })
	),
	/** How often a fault is met against another. */
	odds: z.record(z.string(), z.number().min(0.01, 'above nothing').max(100, 'a hundred at the most'))
});
export type ReasonBook = z.infer<typeof ReasonBook>;
export const EMPTY_BOOK: ReasonBook = { version: 0, tests: {}, repairs: {}, odds: {} };

/** Only what differs from the library, and nothing that the library does not have. */
export function tidied(book: ReasonBook): ReasonBook {
	const keep = <V>(record: Record<string, V>, differs: (id: string, value: V) => boolean) =>
		Object.fromEntries(Object.entries(record).filter(([id, value]) => differs(id, value)));
	return {
		version: book.version,
		tests: keep(book.tests, (id, minutes) => testKinds.has(id) && testKinds.get(id)?.minutes !== minutes),
		repairs: keep(book.repairs, (id, { minutes, price }) => {
			const known = repairs.get(id);
			return known !== undefined && (known.minutes !== minutes || known.price !== price);
		}),
		odds: keep(book.odds, (id, weight) => faults.has(id) && libraryWeight(id) !== weight)
	};
}
