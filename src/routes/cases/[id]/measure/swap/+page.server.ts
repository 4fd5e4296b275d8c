import { readOf, swapNow, swapShows, swapsWith } from '$lib/case/measure/swapTest';
import { positionWords } from '$lib/case/words';
import { benchPage } from '$lib/server/cases/benchPage';
import { SWAPPED, type Swapped } from '$library/reason/swaps';
import { wheelReaderOf } from '../../../../../../library/measurePoints';

/** What swapping each of them exposes. */
const EXPOSES: Record<Swapped, string[]> = {
	sensors: ['lifted', 'wheel-off', 'corner-touched', 'connector-open', 'codes-set'],
	wheels: ['lifted', 'wheel-off'],
	module: ['module-off', 'module-written', 'maker-only']
};

export const load = async (event) => {
	const { view, type, shared, cautions } = await benchPage(event);
	const { at } = shared;
	const { entries, codes } = view;
	const wheels =
		type?.wheels.map(({ position }) => position) ?? shared.corners.map(({ position }) => position);
	const now = swapNow(entries, at);
	const other = now?.payload.with ?? null;
	const [before, since] = now
		? [entries.slice(0, entries.indexOf(now)), entries.slice(entries.indexOf(now) + 1)]
		: [entries, []];
	const places = [at, ...(other ? [other] : [])];
	const [here = [], there = []] = places.map((place) => readOf(since, place, codes));
	return {
		...shared,
		now: now && { ...now.payload, withWords: other && positionWords(other) },
		ways: SWAPPED.flatMap((what) => {
			const partner = swapsWith(what, at, wheels);
			if (what !== 'module' && partner === null) return [];
			return [
				{
					what,
					with: partner,
					withWords: partner && positionWords(partner),
					cautions: cautions.words(EXPOSES[what])
				}
			];
		}),
		module: (type && wheelReaderOf(type)?.name) ?? 'the module that reads the wheels',
		read: places.map((place) => ({
			words: positionWords(place),
			before: readOf(before, place, codes),
			since: readOf(since, place, codes)
		})),
		shows: now ? swapShows(here, there) : null
	};
};
