import { planDay, type StillTakes } from '../../core/day/planDay';
import type { FloorFacts } from './summary';

/** An open case as the floor is put in order by it. */
export interface OpenCase extends FloorFacts {
	id: string;
	number: number;
	nickname: string;
	/** All that it and its vehicle are called. */
	names: string;
	minutes: StillTakes | null;
}

/** Which of the open cases are looked at. */
export const SHOWS = ['all', 'mine', 'late', 'waits', 'sign', 'call'] as const;
export type Show = (typeof SHOWS)[number];

export const SORTS = ['urgency', 'number', 'vehicle', 'promised'] as const;
export type Sort = (typeof SORTS)[number];

export interface PlannedCase extends OpenCase {
	/** What it was promised for has gone by. */
	late: boolean;
	/** It is promised for today and will not be ready by then: too much comes before it, or whoever has it is not here. */
	tight: boolean;
	/** Finished today, with all that is done before it; null = nobody knows, it rests, or the day is over. */
	today: 'yes' | 'perhaps' | 'no' | null;
}

export interface FloorAt {
	now: Date;
	/** When work goes on today; absent = now. */
	from?: Date;
	/** Minutes of work left today from then; none after closing. */
	minutesLeft: number;
	/** Accounts of those who take what nobody has yet. */
	people: readonly string[];
	/** Accounts of those who are not here today: what they have waits for them. */
	notHere?: readonly string[];
}

const MS_PER_MIN = 60_000;
/** After every moment in writing. */
const LAST = '~';

function byDue(a: PlannedCase, b: PlannedCase): number {
	const [first, second] = [a.dueAt ?? LAST, b.dueAt ?? LAST];
	return first < second ? -1 : first > second ? 1 : 0;
}

/** What is late or came back before all else; then what is promised first; then what has been here longest. */
const byUrgency = (a: PlannedCase, b: PlannedCase): number =>
	Number(b.late || b.isBack) - Number(a.late || a.isBack) || byDue(a, b) || a.number - b.number;

const ORDERS: Record<Sort, (a: PlannedCase, b: PlannedCase) => number> = {
	urgency: byUrgency,
	number: (a, b) => a.number - b.number,
	vehicle: (a, b) => a.nickname.localeCompare(b.nickname) || a.number - b.number,
	promised: (a, b) => byDue(a, b) || a.number - b.number
};

/** The open cases, the most urgent first, and which of them will be finished today, all together. */
export function floorPlan(
	cases: readonly OpenCase[],
	{ now, from = now, minutesLeft, people, notHere = [] }: FloorAt
): PlannedCase[] {
	const isLate = ({ dueAt }: OpenCase) => dueAt !== null && new Date(dueAt) < now;
	const ordered = cases
		.map((one): PlannedCase => ({ ...one, late: isLate(one), tight: false, today: null }))
		.sort(byUrgency);
	const isAway = ({ withId }: OpenCase) => withId !== null && notHere.includes(withId);
	const rests = (one: OpenCase) => one.waitsFor !== null || one.toSign || isAway(one);
	const finishes = planDay(
		ordered.map((one) => ({ id: one.id, minutes: one.minutes, with: one.withId, rests: rests(one) })),
		people.filter((id) => !notHere.includes(id))
	);
	return ordered.map((one) => {
		if (minutesLeft <= 0) return one;
		const finish = finishes.get(one.id);
		const untilDue =
			one.dueAt === null ? Infinity : (new Date(one.dueAt).getTime() - from.getTime()) / MS_PER_MIN;
		const isDueToday = !one.late && untilDue <= minutesLeft;
		if (!finish) return { ...one, tight: isDueToday && isAway(one) };
		return {
			...one,
			tight: isDueToday && finish.mean > untilDue,
			today: finish.high <= minutesLeft ? 'yes' : finish.low <= minutesLeft ? 'perhaps' : 'no'
		};
	});
}

/** What is looked at under each name. @param me account of whoever looks */
const SHOWN: Record<Show, (one: PlannedCase, me: string | null) => boolean> = {
	all: () => true,
	mine: ({ withId }, me) => withId !== null && withId === me,
	late: ({ late, isBack }) => late || isBack,
	waits: ({ waitsFor }) => waitsFor !== null,
	sign: ({ toSign }) => toSign,
	call: ({ late, tight, waitsFor, toAsk }) => late || tight || toAsk || waitsFor === 'the customer'
};

export const shown = (
	planned: readonly PlannedCase[],
	show: Show,
	me: string | null,
	sort: Sort
): PlannedCase[] => {
	const chosen = planned.filter((one) => SHOWN[show](one, me));
	return sort === 'urgency' ? chosen : chosen.sort(ORDERS[sort]);
};

export const counts = (planned: readonly PlannedCase[], me: string | null): Record<Show, number> =>
	Object.fromEntries(SHOWS.map((show) => [show, shown(planned, show, me, 'urgency').length])) as Record<
		Show,
		number
	>;

/** What whoever looks does next: the most urgent that is theirs or nobody's and can be worked on; null where there is none. */
export const nextOf = (planned: readonly PlannedCase[], me: string | null): PlannedCase | null =>
	planned.find(
		({ waitsFor, toSign, withId }) => waitsFor === null && !toSign && (withId === null || withId === me)
	) ?? null;
