import type { PathPlace } from '../../../../library/measurePoints';
import type { Position } from '../../../../library/positions';
import type { HarnessSearch } from '../entries/harness-search/payload';
import { FAULT_RULES, foundAt, planSearch, type HarnessFault } from './harnessPlan';
import { readingWords, type MeterReading } from './reading';

/** A search for the place of a fault along a wire, as it stands on the thread. */

export type Wire = HarnessSearch['wire'];
type Noted = HarnessSearch['readings'];

/** Where a search is: the wire, the kind of fault, and its places in order. */
export interface SearchAt {
	position: Position;
	wire: Wire;
	fault: HarnessFault;
	path: readonly PathPlace[];
}

/** What was read so far. Two people may have measured at once: what each of them read counts, of one place the later word. */
export const notedOf = (searches: readonly Pick<HarnessSearch, 'readings'>[]): Noted => [
	...new Map(searches.flatMap(({ readings }) => readings.map((one) => [one.place, one] as const))).values()
];

export const readsByPlace = (noted: Noted): Record<string, 'good' | 'bad'> =>
	Object.fromEntries(noted.map(({ place, reads }) => [place, reads]));

/** What a meter reads of a fault of this kind. */
export const quantityOf = (fault: HarnessFault): 'V' | 'Ω' =>
	FAULT_RULES[fault].mode === 'ohms' ? 'Ω' : 'V';

export const placeWordsIn = (places: readonly PathPlace[], node: string): string =>
	places.find((one) => one.node === node)?.words ?? node;

/**
 * The entry of a search after one more reading.
 *
 * @param opened plugs that tests at this corner have laid open before, those of this search among them
 * @param reading null where somebody judged it without a number
 */
export function searchAfter(
	{ position, wire, fault, path }: SearchAt,
	noted: Noted,
	{ opened, openedHere }: { opened: readonly string[]; openedHere: readonly string[] },
	here: { place: PathPlace; minutes: number; reading: MeterReading | null; reads: 'good' | 'bad' }
): HarnessSearch {
	const { place, minutes, reading, reads } = here;
	const readings = [
		...noted.filter((one) => one.place !== place.node),
		{
			place: place.node,
			words: place.words,
			text: reading === null ? '' : readingWords(reading, quantityOf(fault)),
			reads,
			minutes
		}
	];
	const { places, between, found, contradiction } = planSearch(
		path,
		wire,
		fault,
		readsByPlace(readings),
		opened
	);
	const words = (node: string) => placeWordsIn(places, node);
	const ended = found ? foundAt(places, between) : null;
	return {
		position,
		wire,
		fault,
		exposed: [...new Set([...openedHere, place.behind])],
		readings,
		between: [words(between[0]), words(between[1])],
		found,
		contradiction: contradiction
			? `${words(contradiction.good)} good, ${words(contradiction.bad)} bad`
			: null,
		says: ended?.says ?? `The fault lies between ${words(between[0])} and ${words(between[1])}.`,
		proves: [],
		implicates: ended?.implicates ?? ['harness']
	};
}
