import { error, json } from '@sveltejs/kit';
import { describeEntry } from '$lib/case/describe';
import { faultsAt } from '$lib/case/reason/grid';
import { placeWords, seenWords } from '$lib/case/reason/words';
import { explain } from '$lib/core/path/explain';
import { loadCase } from '$lib/server/cases/access';
import { reasonOf } from '$lib/server/cases/reason';
import { splitKey } from '../../../../../../library/reason/signs';

const MOST = 8;

/** Which entries moved the probability of a link of a place, and by how much. */
export async function GET({ params, url }) {
	const upTo = url.searchParams.get('upto');
	const reasoned = await reasonOf(await loadCase(params.id), upTo === null ? null : Number(upTo));
	if (!reasoned) error(404, 'The vehicle of this case is not described: there is nothing to reason about.');
	const { reasoning, entries } = reasoned;
	const { model, belief, observations, curedFrom, withoutWork, epoch, leftBehind } = reasoning;
	const [place, link] = [url.searchParams.get('place'), url.searchParams.get('link')];
	const [fault] = faultsAt(model, place ?? '', link ?? '').sort(
		(a, b) => (belief.present[b] ?? 0) - (belief.present[a] ?? 0)
	);
	if (fault === undefined) error(404, 'There is no such link on this vehicle.');
	const titles = new Map(entries.map((entry) => [entry.id, describeEntry(entry).title]));
	return json({
		fault: model.faults[fault]?.fault.name,
		p: belief.present[fault] ?? 0,
		moved: explain(model, observations, fault, curedFrom, withoutWork, epoch, leftBehind)
			.slice(0, MOST)
			.map(({ entry, without, bits, observations: told }) => ({
				entry,
				title: titles.get(entry) ?? '',
				without,
				bits,
				words: told
					.slice(0, 3)
					.map(
						({ sign, outcome }) =>
							`${placeWords(splitKey(sign).place, model.type)}: ${seenWords(sign, outcome)}`
					)
			}))
	});
}
