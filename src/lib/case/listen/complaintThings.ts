import type { ComplaintAnswer, ComplaintAnswered } from '../entries/complaint-answered/payload';
import type { Entry, EntryOf } from '../entries/entry';
import { lampHistory } from '../codes/lampTold';
import { isMending } from '../mend/calibrations';
import { happenedAfter, latest, ofKind } from '../thread/thread';
import { thingWords } from './complaintWords';

/** One thing that the customer said, and what came of it. */
export interface ComplaintThing {
	/** `felt:pedal-pulses`. */
	key: string;
	what: ComplaintAnswered['what'];
	thing: string;
	words: string;
	/** Null where nobody has said anything of it yet. */
	answer: { how: ComplaintAnswer; why: string; by: string; at: string } | null;
	/** Whether it is answered so that nothing of it is left to do. */
	settled: boolean;
}

const SETTLES: readonly ComplaintAnswer[] = ['gone', 'explained'];

/**
 * Each thing that the customer said: what is felt, in chosen or own words, and the lamps; where nothing of it was chosen, the
 * complaint as it was said. A lamp that lit and went out at key-on is answered by that. What was gone is asked about anew
 * after another repair; an explanation stays.
 *
 * @param entries standing entries in order
 */
export function complaintThings(entries: readonly Entry[]): ComplaintThing[] {
	const said = latest(entries, 'complaint')?.payload;
	const chosen = [
		...(said?.felt ?? []).map((thing) => ({ what: 'felt' as const, thing })),
		...(said?.symptoms ?? []).map((thing) => ({ what: 'symptom' as const, thing })),
		...(latest(entries, 'lamps-reported')?.payload.lamps ?? []).map(({ lamp }) => ({
			what: 'lamp' as const,
			thing: lamp
		}))
	];
	const things = chosen.length > 0 || !said ? chosen : [{ what: 'words' as const, thing: said.words }];
	const mended = entries.filter(isMending).at(-1) ?? null;
	return things.map(({ what, thing }) => {
		const answer = answersOf(entries, { what, thing }).at(-1) ?? null;
		const wentOut = what === 'lamp' ? lampWentOut(entries, thing, mended) : null;
		const isStale = answer?.payload.how === 'gone' && mended && !happenedAfter(entries, answer, mended);
		const stands = answer && !isStale ? answer : null;
		const told = stands
			? { how: stands.payload.how, why: stands.payload.why, by: stands.authorName, at: stands.observedAt }
			: wentOut && {
					how: 'gone' as const,
					why: 'it lit at key-on and went out',
					by: wentOut.authorName,
					at: wentOut.observedAt
				};
		return {
			key: `${what}:${thing}`,
			what,
			thing,
			words: thingWords({ what, thing }),
			answer: told,
			settled: told !== null && SETTLES.includes(told.how)
		};
	});
}

function lampWentOut(
	entries: readonly Entry[],
	lamp: string,
	mended: Entry | null
): EntryOf<'lamp-check'> | null {
	const check = latest(entries, 'lamp-check');
	const after = check && (!mended || happenedAfter(entries, check, mended));
	return after && check.payload.lamps.some((one) => one.lamp === lamp && one.result === 'lit and went out')
		? check
		: null;
}

/** Whether the vehicle itself ever told of anything: a code, or a module that was silent. */
const vehicleTold = (entries: readonly Entry[]): boolean =>
	ofKind(entries, 'network-scan').some(({ payload }) =>
		payload.modules.some(({ answered, codes }) => !answered || codes.length > 0)
	) ||
	ofKind(entries, 'codes-reported').length > 0 ||
	(lampHistory(entries)?.codes.length ?? 0) > 0;

/**
 * What of the complaint stands between the case and its signature. Before anything is mended, and where the vehicle never told
 * of anything, that is each thing that is not settled; where codes are proven, what was seen to show again since the repair.
 */
export function complaintOpen(entries: readonly Entry[]): ComplaintThing[] {
	const mended = entries.filter(isMending).at(-1) ?? null;
	const byComplaint = mended === null || !vehicleTold(entries);
	return complaintThings(entries).filter(({ settled, answer, what, thing }) => {
		if (byComplaint) return !settled;
		const shown = answersOf(entries, { what, thing }).at(-1);
		return answer?.how === 'shows-again' && shown !== undefined && happenedAfter(entries, shown, mended);
	});
}

const answersOf = (entries: readonly Entry[], one: Pick<ComplaintThing, 'what' | 'thing'>) =>
	ofKind(entries, 'complaint-answered').filter(
		({ payload }) => payload.what === one.what && payload.thing === one.thing
	);
