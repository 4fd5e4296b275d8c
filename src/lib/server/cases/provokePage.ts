import type { Position } from '../../../../library';
import { exposedByTest } from '../../../../library/exposedBySteps';
import { waysToProvoke } from '../../case/reason/waysToProvoke';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { cautionsHere } from './cautionsHere';
import { reasonOf } from './reason';

/** The ways to make a fault at a wheel show, the one that tells most a minute first; null where nothing is described. */
export async function provokePage(
	stores: Stores,
	{ caseId, position }: { caseId: string; position: Position }
) {
	const reasoned = await reasonOf(stores, await loadCase(stores, caseId));
	if (!reasoned) return null;
	const { reasoning } = reasoned;
	const { type } = reasoning.model;
	const cautions = await cautionsHere(stores, type);
	return waysToProvoke(reasoning, position).map(({ exposes, ...way }) => ({
		...way,
		cautions: cautions.words(exposedByTest(exposes, type))
	}));
}
