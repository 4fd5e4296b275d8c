import type { VehicleType } from '../../../../library';
import { shippedBook, type CodeBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { fail, ok, type Result } from '../../core/result';
import type { Policy } from '../../core/path/repairCost';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseNumbering } from '../codes/caseNumbering';
import { caseCodes } from '../codes/caseCodes';
import { typeOf } from '../thread/vehicleOf';
import type { Entry } from '../entries/entry';
import { standing } from '../thread/thread';
import { reasonAbout, type Reasoning } from './reasoning';
import { percentWords } from './percentWords';
import { WHY_GENERAL_METHOD } from './whyRepairNow';
import { faultWords, placeWords } from './words';

/** What is suspected, what to test next, and whether to stop. */
export interface Plan {
	hypotheses: { fault: string; probability: number }[];
	next: { test: string; minutes: number; bitsPerMinute: number; why: string }[];
	stop: { repair: string; confidence: number; why: string } | null;
}

const MOST_TOLD = 12;
const LEAST_TOLD = 0.002;

/**
 * Throws nothing: a case without a described vehicle is an error in words.
 *
 * @param described the vehicle of the case, where its thread is not to say it
 */
export function planOf(
	thread: Entry[],
	policy: Policy = PROVE_FIRST,
	book: CodeBook = shippedBook,
	described: VehicleType | null = null
): Result<Plan> {
	const entries = standing(thread);
	const type = described ?? typeOf(entries);
	if (!type)
		return fail(
			'no entry says which type of vehicle this is: expected a "case-opened" with a typeId of the library, or a "vehicle-described"'
		);
	const numbering = caseNumbering(entries, book);
	const codes = caseCodes(thread, numbering.book);
	const reasoning = reasonAbout(entries, reasonModel(type), {
		book: numbering.book,
		numberingOpen: numbering.open,
		codes,
		policy
	});
	return ok({ hypotheses: hypothesesOf(reasoning), next: nextOf(reasoning), stop: stopOf(reasoning) });
}

/** What can be wrong, the likeliest first; a fault's bins are one. */
export function hypothesesOf({ model, belief }: Reasoning): Plan['hypotheses'] {
	const ours = (fault: number) => (belief.madeByUs[fault] ?? 0) > (belief.present[fault] ?? 0) / 2;
	const leftWords = (faults: readonly number[]) =>
		`${faultWords(model, faults)}${faults.some(ours) ? ' (left behind by our own repair)' : ''}`;
	const byFaults = new Map<string, { faults: readonly number[]; p: number }>();
	for (const { left, p } of belief.states) {
		const key = left.join('+');
		const known = byFaults.get(key);
		byFaults.set(key, { faults: left, p: p + (known?.p ?? 0) });
	}
	return [...byFaults.values()]
		.filter(({ p }) => p > LEAST_TOLD)
		.sort((a, b) => b.p - a.p)
		.slice(0, MOST_TOLD)
		.map(({ faults, p }) => ({
			fault: faults.length === 0 ? 'nothing is wrong now' : leftWords(faults),
			probability: p
		}));
}

export function nextOf({ decision, candidates, model }: Reasoning): Plan['next'] {
	return decision.ranked.slice(0, 3).map(({ test, minutes, bitsPerMinute }) => {
		const placed = candidates.find(({ id }) => id === test.id);
		return {
			test: placed ? testWords(placed.kind.name, placed.place, model.type) : test.id,
			minutes,
			bitsPerMinute,
			why: placed?.kind.why ?? ''
		};
	});
}

export const testWords = (name: string, place: string, type: Reasoning['model']['type']): string =>
	place === 'vehicle' ? name : `${name}, ${placeWords(place, type)}`;

function stopOf({ decision, model, policy, belief }: Reasoning): Plan['stop'] {
	const [step] = decision.mending;
	if (decision.test || !step) return null;
	const repair = model.repairs[step.repair];
	if (!repair || belief.nothing > 0.5) return null;
	const percent = percentWords(step.cures);
	return {
		repair: `${repair.name}, ${placeWords(repair.place, model.type)}`,
		confidence: step.cures,
		why:
			decision.why === 'code-alone' || decision.why === 'repairs-did-not-help'
				? WHY_GENERAL_METHOD[decision.why]
				: decision.why === 'nothing-tells-more'
					? `${percent} that it cures; no test at hand tells more.`
					: `${percent} that it cures, and ${percentWords(policy.confidence)} are asked for a part: more testing costs more than it saves.`
	};
}
