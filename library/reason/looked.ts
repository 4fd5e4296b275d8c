import type { ReasonModel } from './placed';
import { mayProve } from './ruledSigns';
import { signKey, splitKey } from './signs';
import type { PlacedTest } from './tests';

/** What only codes, and what people tell, do not settle: whether somebody has looked at the place of a repair. */
export interface LookedInto {
	/** Whether anything but codes and what people tell bears on the place of a repair. */
	looked: (repair: number) => boolean;
	/** Whether a test bears on it. */
	bearsOn: (test: string, repair: number) => boolean;
	/** Whether a test is about the place of a repair, or about all of the vehicle. */
	atPlace: (test: string, repair: number) => boolean;
	/** The short check that comes before a module is renewed, as far as it is still to be done; null where nothing is. */
	due: (repair: number) => string | null;
	/** Whether that check was done, with its code there again: nothing else is chased. */
	checked: (repair: number) => boolean;
}

/** Power and ground under load, then whether it is there again with the key: only then is a module condemned. */
const RECHECK = 'recheck';
const SHORT_CHECK = ['meter:module-supply', 'meter:ground-drop', RECHECK];
const RENEWS_MODULE: ReadonlySet<string> = new Set(['renew-module', 'renew-unit']);

/**
 * @param seen keys of the signs that were seen since the last repair
 * @param candidates tests that can still be done
 */
export function lookedInto(
	model: ReasonModel,
	seen: readonly string[],
	candidates: readonly Pick<PlacedTest, 'id' | 'place' | 'signs'>[]
): LookedInto {
	const tested = seen.filter((key) => mayProve(key, 'bad'));
	const tables = tested.flatMap((key) => model.sign(key) ?? []);
	const places = new Set(tested.map((key) => splitKey(key).place));
	for (const [index, { place }] of model.faults.entries())
		if (!model.background.has(index) && tables.some(({ acts }) => acts[model.rows.length + index] === 1))
			places.add(place);
	const placeOf = (repair: number) => model.repairs[repair]?.place ?? '';
	const tells = new Map(
		candidates.map(({ id, place, signs }) => [id, signs.some((key) => mayProve(key, 'bad')) ? place : null])
	);
	const known = new Set(seen.map((key) => signKey(splitKey(key).sign, splitKey(key).place)));
	const rechecked = seen.some((key) => splitKey(key).sign === 'own-back');
	const due = (repair: number): string | null => {
		const { kind = '', place = '' } = model.repairs[repair] ?? {};
		if (!RENEWS_MODULE.has(kind) || !model.type.modules.some(({ role }) => role === place)) return null;
		for (const test of SHORT_CHECK) {
			const again = test === RECHECK;
			// Who does not answer has nothing to be read again.
			if (again && (rechecked || !known.has(signKey('own-code', place)))) continue;
			const open = candidates.find(({ id }) => id === signKey(test, again ? 'vehicle' : place));
			if (open && (again || !open.signs.some((key) => known.has(key)))) return open.id;
		}
		return null;
	};
	const placeOfTest = new Map(candidates.map(({ id, place }) => [id, place]));
	const checked = (repair: number): boolean => {
		const { kind = '', place = '' } = model.repairs[repair] ?? {};
		return RENEWS_MODULE.has(kind) && known.has(signKey('own-back', place)) && due(repair) === null;
	};
	return {
		due,
		checked,
		atPlace: (test, repair) => ['vehicle', placeOf(repair)].includes(placeOfTest.get(test) ?? ''),
		looked: (repair) => places.has(placeOf(repair)),
		bearsOn: (test, repair) => tells.get(test) === placeOf(repair)
	};
}
