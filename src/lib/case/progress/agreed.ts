import type { Entry, EntryOf, PayloadOf } from '../entries/entry';
import { sumOfEstimate, type Estimate } from '../entries/estimate/payload';
import { moneyWords } from '../../core/money/money';
import { ofKind } from '../thread/thread';

/**
 * What the customer has agreed to, against what is asked and what was done:
 *
 * - `none` nobody has said what it costs;
 * - `to-ask` an estimate that nobody has answered;
 * - `refused` the customer does not agree to the newest;
 * - `agreed`;
 * - `more` the newest estimate is above what was agreed, or a repair was done that no agreed estimate has: ask again.
 */
export interface Agreement {
	state: 'none' | 'to-ask' | 'refused' | 'agreed' | 'more';
	/** The newest. */
	estimate: (Estimate & { id: string; at: string; total: number }) | null;
	/** To the newest; null = none yet. */
	answer: (PayloadOf<'estimate-answered'> & { at: string; by: string }) | null;
	/** What was agreed to at most, with tax, in smallest units; null = nothing was. */
	upTo: number | null;
	/** Repairs that were done and stand in no estimate that was agreed to. */
	beyond: string[];
}

type Estimated = EntryOf<'estimate'>;
type Answered = EntryOf<'estimate-answered'>;

const totalOf = ({ payload }: Estimated): number => sumOfEstimate(payload).total;
const keyOf = ({ kind, place }: { kind: string; place: string }): string => `${kind}@${place}`;
const repairsIn = ({ payload }: Estimated): string[] =>
	payload.lines.flatMap(({ repair }) => (repair ? [keyOf(repair)] : []));

/** Repairs that were done and stand in none of the estimates; nothing is said where those name no repair of the library. */
function beyondThese(entries: readonly Entry[], estimates: readonly Estimated[]): string[] {
	const covered = new Set(estimates.flatMap(repairsIn));
	if (covered.size === 0) return [];
	const beyond = ofKind(entries, 'repair').filter(
		({ payload: { does } }) => does !== undefined && !covered.has(keyOf(does))
	);
	return [...new Set(beyond.map(({ payload }) => payload.title))];
}

/** @param entries standing ones, in order */
export function agreementOf(entries: readonly Entry[]): Agreement {
	const estimates = ofKind(entries, 'estimate');
	const newest = estimates.at(-1);
	if (!newest) return { state: 'none', estimate: null, answer: null, upTo: null, beyond: [] };
	// The last answer to each estimate counts, for the estimate that it names.
	const answers = new Map(ofKind(entries, 'estimate-answered').map((one) => [one.payload.estimate, one]));
	const agreed = estimates.filter(({ id }) => answers.get(id)?.payload.agrees);
	const last = agreed.at(-1);
	const upTo = last ? (answers.get(last.id)?.payload.upTo ?? totalOf(last)) : null;
	const beyond = beyondThese(entries, agreed);
	const answer = answers.get(newest.id) ?? null;
	const total = totalOf(newest);
	const isOver =
		upTo !== null &&
		(total > upTo || last?.payload.currency !== newest.payload.currency || beyond.length > 0);
	return {
		state: stateOf(answer, upTo, isOver),
		estimate: { ...newest.payload, id: newest.id, at: newest.observedAt, total },
		answer: answer && { ...answer.payload, at: answer.observedAt, by: answer.authorName },
		upTo,
		beyond
	};
}

function stateOf(answer: Answered | null, upTo: number | null, isOver: boolean): Agreement['state'] {
	if (answer && !answer.payload.agrees) return 'refused';
	if (upTo === null) return 'to-ask';
	// Less than was agreed to needs no call.
	return isOver ? 'more' : 'agreed';
}

/** Whether somebody has to ask the customer. */
export const isToAsk = ({ state }: Agreement): boolean => state === 'to-ask' || state === 'more';

/** What stands between the work and the customer's yes, in a sentence; null where nothing does. */
export function openWithCustomer({ state, estimate, upTo, beyond }: Agreement): string | null {
	if (!estimate) return null;
	const money = (amount: number) => moneyWords(amount, estimate.currency);
	switch (state) {
		case 'to-ask':
			return `The customer has not said yet whether it may cost ${money(estimate.total)}.`;
		case 'refused':
			return `The customer does not agree to ${money(estimate.total)}.`;
		case 'more':
			return beyond.length > 0
				? `Done, and not in what the customer agreed to: ${beyond.join(', ')}.`
				: `${money(estimate.total)} is asked, and the customer agreed to ${money(upTo ?? 0)}: ask again.`;
		default:
			return null;
	}
}
