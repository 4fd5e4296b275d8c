import type { ReasonModel } from './placed';
import { mayProve } from './ruledSigns';
import { splitKey } from './signs';
import type { PlacedTest } from './tests';

/** What only codes, and what people tell, do not settle: whether somebody has looked at the place of a repair. */
export interface LookedInto {
	/** Whether anything but codes and what people tell bears on the place of a repair. */
	looked: (repair: number) => boolean;
	/** Whether a test bears on it. */
	bearsOn: (test: string, repair: number) => boolean;
}

/**
 * @param seen keys of the signs that were seen since the last repair
 * @param candidates tests that can still be done
 */
export function lookedInto(
	model: ReasonModel,
	seen: Iterable<string>,
	candidates: readonly Pick<PlacedTest, 'id' | 'place' | 'signs'>[]
): LookedInto {
	const tested = [...seen].filter((key) => mayProve(key, 'bad'));
	const tables = tested.flatMap((key) => model.sign(key) ?? []);
	const places = new Set(tested.map((key) => splitKey(key).place));
	for (const [index, { place }] of model.faults.entries())
		if (!model.background.has(index) && tables.some(({ acts }) => acts[model.rows.length + index] === 1))
			places.add(place);
	const placeOf = (repair: number) => model.repairs[repair]?.place ?? '';
	const tells = new Map(
		candidates.map(({ id, place, signs }) => [id, signs.some((key) => mayProve(key, 'bad')) ? place : null])
	);
	return {
		looked: (repair) => places.has(placeOf(repair)),
		bearsOn: (test, repair) => tells.get(test) === placeOf(repair)
	};
}
