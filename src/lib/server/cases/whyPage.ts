import { describeEntry } from '../../case/thread/describe';
import { faultsAt } from '../../case/reason/grid';
import { placeWords, seenWords } from '../../case/reason/words';
import { explain } from '../../core/path/explain';
import { splitKey } from '../../../../library/reason/signs';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { reasonOf } from './reason';

const MOST = 8;

/** Which entries moved the probability of a link of a place, and by how much; null where there is no such link. */
export async function whyPage(
	stores: Stores,
	{ caseId, upTo, place, link }: { caseId: string; upTo: number | null; place: string; link: string }
) {
	const reasoned = await reasonOf(stores, await loadCase(stores, caseId), upTo);
	if (!reasoned) return null;
	const { reasoning, entries } = reasoned;
	const { model, belief, observations, curedFrom, withoutWork, epoch, repairInduced } = reasoning;
	const [fault] = faultsAt(model, place, link).sort(
		(a, b) => (belief.present[b] ?? 0) - (belief.present[a] ?? 0)
	);
	if (fault === undefined) return null;
	const titles = new Map(entries.map((entry) => [entry.id, describeEntry(entry).title]));
	return {
		fault: model.faults[fault]?.fault.name,
		p: belief.present[fault] ?? 0,
		moved: explain(model, observations, fault, curedFrom, withoutWork, epoch, repairInduced)
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
	};
}
