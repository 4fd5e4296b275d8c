import type { ComplaintAnswer, ComplaintAnswered } from '../entries/complaint-answered/payload';
import type { Entry, EntryOf } from '../entries/entry';
import { lampHistory } from '../codes/lampTold';
import { isMending } from '../mend/calibrations';
import { happenedAfter, latest, ofKind } from '../thread/thread';
import { thingWords } from './complaintWords';

/** One thing that the customer said, and what came of it. */
export interface ComplaintThing {
	/** `felt:pedal-pulses`; of the complaint as a whole `complaint`. Short enough to be released by. */
	key: string;
	what: ComplaintAnswered['what'];
	thing: string;
	words: string;
	/** Null where nobody has said anything of it yet. */
	answer: { how: ComplaintAnswer; why: string; by: string; at: string } | null;
	/** Whether it is answered so that nothing of it is left to do. */
	settled: boolean;
}

const LONGEST_KEY = 80;
const keyOf = ({ what, thing }: Pick<ComplaintAnswered, 'what' | 'thing'>): string =>
	what === 'words' ? 'complaint' : `${what}:${thing.slice(0, LONGEST_KEY)}`;

/**
 * Each thing that the customer said: what is felt, in chosen or own words, and the lamps; where nothing of it was chosen, the
 * complaint as it was said. A lamp that lit and went out at key-on is answered by that. Gone is only what a repair has ended: it is
 * asked about anew after another one, and before any it is no more than what did not show. An explanation stays.
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
	// Said twice it is one thing.
	const distinct = [...new Map(things.map((one) => [keyOf(one), one])).values()];
	const mended = entries.filter(isMending).at(-1) ?? null;
	return distinct.map(({ what, thing }) => {
		const answer = answersOf(entries, { what, thing }).at(-1) ?? null;
		const wentOut = what === 'lamp' ? lampWentOut(entries, thing, mended) : null;
		const isStale = answer?.payload.how === 'gone' && mended && !happenedAfter(entries, answer, mended);
		const stands = answer && !isStale ? answer : null;
		const told = stands
			? { how: stands.payload.how, why: stands.payload.why, by: stands.authorName, at: stands.observedAt }
			: wentOut && {
					how: mended ? ('gone' as const) : ('does-not-show' as const),
					why: 'it lit at key-on and went out',
					by: wentOut.authorName,
					at: wentOut.observedAt
				};
		return {
			key: keyOf({ what, thing }),
			what,
			thing,
			words: thingWords({ what, thing }),
			answer: told,
			settled: told !== null && (told.how === 'explained' || (told.how === 'gone' && mended !== null))
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
