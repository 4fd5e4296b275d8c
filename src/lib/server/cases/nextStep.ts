import type { NextStep } from '../../case/progress/step';
import { hasTold } from '../../case/codes/hasTold';
import { hypothesesOf, testWords } from '../../case/reason/plan';
import { testPath } from '../../case/reason/testPath';
import { mendingSteps } from '../../case/reason/reasonView';
import { percentWords } from '../../case/reason/percentWords';
import { lowerFirst, upperFirst } from '../../case/words';
import type { Stores } from '../stores';
import type { LoadedCase } from './loadedCase';
import { reasonOf } from './reason';

/**
 * The next step of a case. Where the thread's order only says "find it", the reasoning says how: the test that tells most
 * for its minutes, or the repair that is proven enough.
 */
export async function nextStepOf(stores: Stores, loaded: LoadedCase): Promise<NextStep | null> {
	const { next } = loaded.view;
	// What comes and goes is provoked first: at rest there is nothing to measure.
	if (!next || !next.seeks || next.page !== undefined || !hasTold(loaded.view)) return next;
	const reasoned = await reasonOf(stores, loaded);
	if (!reasoned) return next;
	const { decision, candidates, model, policy } = reasoned.reasoning;
	const placed = decision.test && candidates.find(({ id }) => id === decision.test?.test.id);
	if (placed && decision.test) {
		const { kind, place } = placed;
		return {
			...next,
			...(kind.ownPage
				? {
						station: kind.station,
						anchor: kind.station,
						path: testPath({ kind: kind.id, station: kind.station, place })
					}
				: { station: 'reason', anchor: 'next-test' }),
			title: testWords(placed.kind.name, placed.place, model.type),
			why: `${Math.round(decision.test.minutes)} min. ${placed.kind.why} ${leadingWords(reasoned.reasoning)}`
		};
	}
	const [repair] = mendingSteps(reasoned.reasoning);
	if (!repair) return next;
	return {
		...next,
		station: 'reason',
		anchor: 'next-test',
		title: `Stop testing: ${lowerFirst(repair.name)}`,
		why: `${upperFirst(percentWords(repair.cures))} that it fixes it; parts are ordered at ${percentWords(policy.confidence)}.`
	};
}

/** What leads among the suspects, in one sentence. */
function leadingWords(reasoning: Parameters<typeof hypothesesOf>[0]): string {
	const [first, second] = hypothesesOf(reasoning);
	if (!first) return '';
	const words = (one: typeof first) => `${percentWords(one.probability)} ${one.fault}`;
	return `Suspected so far: ${[first, second].flatMap((one) => (one ? [words(one)] : [])).join(', ')}.`;
}
