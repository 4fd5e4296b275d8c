import { titleSource } from '../../../../library/codes';
import { faults } from '../../../../library/faults';
import { reasonModel } from '../../../../library/reason/model';
import { libraryWeight } from '../../../../library/reason/odds';
import type { VehicleType } from '../../../../library';
import { projectCase } from '../../case/progress/project';
import { restsOn } from '../../case/reason/bearing';
import { reasonAbout, type Reasoning } from '../../case/reason/reasoning';
import { policyAt } from '../../core/path/policy';
import { learnedWeights } from '../../core/path/trackRecord';
import type { ProvenRepair } from '../db/trackRecord';
import { typeKey } from '../../../../library/vehicle/vehicleType';
import type { Stores } from '../stores';
import { knownHere } from './knownHere';
import type { LoadedCase } from './loadedCase';

/** How many proven outcomes the library's odds are worth. */
const STRENGTH = 25;

export interface ReasonedCase {
	reasoning: Reasoning;
	/** From track record (0) to prove first (1). */
	proving: number;
	/** This shop's proven repairs on vehicles of this type, or with a code of this case's kind. */
	record: ProvenRepair[];
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
	const record = recordFor(proven, type, loaded);
	const counts = countsByFault(record);
	const model = memory.models.get(`${typeKey(type)} ${book.version} ${JSON.stringify(counts)}`, () => {
		const odds = Object.fromEntries([...faults.keys()].map((id) => [id, book.odds[id] ?? libraryWeight(id)]));
		const learned = learnedWeights(odds, counts, STRENGTH);
		return reasonModel(
			type,
			(fault) => learned[fault] ?? 1,
			(repair) => book.repairs[repair] ?? null
		);
	});
	const of = [loaded.row.id, stamp, restsOn(view.entries)].join(' ');
	const reasoning = memory.reasonings.get(of, () =>
		reasonAbout(view.entries, model, {
			numberingOpen: view.numberingOpen,
			book: view.book,
			codes: view.codes,
			policy: policyAt(proving),
			minutes: (kind) => minutes[kind] ?? book.tests[kind] ?? null
		})
	);
	return { reasoning, proving, record, entries: view.entries, view };
}

/** Outcomes that speak of this case: the same type of vehicle, or a code of the same group. Never the case's own. */
function recordFor(
	proven: readonly ProvenRepair[],
	type: VehicleType,
	{ row, view }: LoadedCase
): ProvenRepair[] {
	const groupOf = (code: string) =>
		titleSource(view.book, { code, failureType: null, maker: type.maker })?.group ?? null;
	const groups = new Set(view.codes.map(({ text }) => groupOf(text.split('-')[0] ?? '')).filter(Boolean));
	return proven.filter(
		({ caseId, typeId, codes }) =>
			caseId !== row.id && (typeId === type.id || codes.some((code) => groups.has(groupOf(code))))
	);
}

/** A repair that was proven speaks for every fault that it cures, by the library's odds between them. */
function countsByFault(record: readonly ProvenRepair[]): Record<string, number> {
	const counts: Record<string, number> = {};
	for (const { kind } of record) {
		const cured = [...faults.values()].filter(({ curedBy }) => curedBy.includes(kind));
		const total = cured.reduce((sum, { id }) => sum + libraryWeight(id), 0);
		for (const { id } of cured) counts[id] = (counts[id] ?? 0) + libraryWeight(id) / total;
	}
	return counts;
}
