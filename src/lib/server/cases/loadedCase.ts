import type { VehicleType } from '../../../../library';
import type { ReasonModel } from '../../../../library/reason/placed';
import type { Entry } from '../../case/entries/entry';
import type { CaseView } from '../../case/progress/project';
import type { Reasoning } from '../../case/reason/reasoning';
import type { CaseRow } from '../db/cases';
import { LatestCache } from '../latestCache';

/** A case as one request has it. */
export interface LoadedCase {
	row: CaseRow;
	thread: Entry[];
	view: CaseView;
	/** Its vehicle's type as this shop describes it; null = it is not described. */
	type: VehicleType | null;
}

/** Cases whose projections are kept. */
const MOST_CASES = 200;
/** Models and reasonings are large. */
const MOST_REASONED = 24;

/** What one server (or one of its threads) keeps of what it worked out. */
export class CaseMemory {
	readonly loaded = new LatestCache<Omit<LoadedCase, 'row'>>(MOST_CASES);
	readonly models = new LatestCache<ReasonModel>(MOST_REASONED);
	readonly reasonings = new LatestCache<Reasoning>(MOST_REASONED);
}
