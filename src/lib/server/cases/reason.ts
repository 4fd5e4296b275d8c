import { faults } from '../../../../library/faults';
import { reasonModel } from '../../../../library/reason/model';
import { libraryWeight } from '../../../../library/reason/odds';
import { projectCase } from '../../case/progress/project';
import { restsOn } from '../../case/reason/bearing';
import { reasonAbout, type Reasoning } from '../../case/reason/reasoning';
import { policyAt } from '../../core/path/policy';
import { learnedWeights } from '../../core/path/trackRecord';
import { typeKey } from '../../../../library/vehicle/vehicleType';
import type { Stores } from '../stores';
import { knownHere } from './knownHere';
import { countsByFault, spokenFor, type Spoken } from './learned';
import type { LoadedCase } from './loadedCase';

/** How many proven outcomes the library's odds are worth. */
const STRENGTH = 25;

export interface ReasonedCase {
	reasoning: Reasoning;
	/** From track record (0) to prove first (1). */
	proving: number;
	/** What this shop's own proven cases say here. */
	spoken: Spoken[];
	/** Entries standing at the moment that is looked at. */
	entries: LoadedCase['view']['entries'];
	view: LoadedCase['view'];
}

/**
 * What follows from a case's thread, by the shop's policy, minutes and track record; null where the vehicle's type is not
 * described. @param upTo place on the thread to look at as it was; null = now
 */
export async function reasonOf(
	stores: Stores,
	loaded: LoadedCase,
	upTo: number | null = null
): Promise<ReasonedCase | null> {
	const { type } = loaded;
	if (!type) return null;
	const { memory } = stores;
	const [{ stamp, proving, book, minutes }, proven] = await Promise.all([
		knownHere(stores),
		stores.trackRecord.read()
	]);
	const past = upTo === null ? loaded.thread : loaded.thread.slice(0, upTo);
	const view = upTo === null ? loaded.view : projectCase(past, loaded.view.book);
	const spoken = spokenFor(proven, type, {
		caseId: loaded.row.id,
		view: loaded.view,
		now: new Date().toISOString()
	});
	const counts = countsByFault(spoken);
	const learnt = JSON.stringify(counts);
	const model = memory.models.get(`${typeKey(type)} ${book.version} ${learnt}`, () => {
		const odds = Object.fromEntries([...faults.keys()].map((id) => [id, book.odds[id] ?? libraryWeight(id)]));
		const learned = learnedWeights(odds, counts, STRENGTH);
		return reasonModel(
			type,
			(fault) => learned[fault] ?? 1,
			(repair) => book.repairs[repair] ?? null
		);
	});
	const of = [loaded.row.id, stamp, learnt, restsOn(view.entries)].join(' ');
	const reasoning = memory.reasonings.get(of, () =>
		reasonAbout(view.entries, model, {
			numberingOpen: view.numberingOpen,
			book: view.book,
			codes: view.codes,
			policy: policyAt(proving),
			minutes: (kind) => minutes[kind] ?? book.tests[kind] ?? null
		})
	);
	return { reasoning, proving, spoken, entries: view.entries, view };
}
