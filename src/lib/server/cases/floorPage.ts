import type { PayloadOf } from '../../case/entries/entry';
import { dueWords } from '../../case/progress/dueWords';
import { hourWords, minutesLeft, worksFrom } from '../../case/progress/floorWords';
import {
	counts,
	floorPlan,
	nextOf,
	shown,
	SHOWS,
	SORTS,
	type PlannedCase,
	type Show,
	type Sort
} from '../../case/progress/floorPlan';
import { numbersOf } from '../../case/codes/answerText';
import { parseSpelling } from '../../core/codes/spelling';
import type { Member } from '../accounts/members';
import type { CaseRow } from '../db/cases';
import { numberIn } from '../db/nameSearch';
import { isNamed } from '../db/trigrams';
import { openCases } from '../db/openCases';
import { nextIn } from '../db/outlook';
import type { Services } from '../services';
import { notHereOn } from './hereToday';
import { knownHere } from './knownHere';

const PAGE = 25;
/** Cases that somebody sees side by side with everybody else’s. */
const MOST_BY_PERSON = 200;
const NOBODY = 'nobody';
const LONGEST_ASKED = 60;

/** What of the floor is asked for, by its address. */
export interface FloorAsked {
	show: Show;
	sort: Sort;
	/** Account of whoever has them, `nobody`, or empty = whoever. */
	with: string;
	/** A code in any spelling, on their threads. */
	code: string;
	/** Words of the vehicle’s name, its plate or the case’s number. */
	words: string;
	/** Side by side, by who has them. */
	byPerson: boolean;
	page: number;
}

/** What is typed into a field that narrows a list. */
export const narrowedBy = ({ searchParams }: URL, name: string): string =>
	searchParams.get(name)?.trim().slice(0, LONGEST_ASKED) ?? '';

const oneOf = <T extends string>(known: readonly T[], text: string | null, usual: T): T =>
	known.find((one) => one === text) ?? usual;

export function floorAsked(url: URL): FloorAsked {
	const { searchParams } = url;
	return {
		show: oneOf(SHOWS, searchParams.get('show'), 'all'),
		sort: oneOf(SORTS, searchParams.get('sort'), 'urgency'),
		with: narrowedBy(url, 'with'),
		code: narrowedBy(url, 'code'),
		words: narrowedBy(url, 'words'),
		byPerson: searchParams.get('by') === 'person',
		page: Math.max(1, Number(searchParams.get('page')) || 1)
	};
}

/** A case as the floor shows it. */
export type FloorRow = Awaited<ReturnType<typeof floorPage>>['rows'][number];

/**
 * What a case is promised for, and how it is said by the shop's clock.
 *
 * @param wanted what cases of before promises stood on threads have in words alone
 */
export function promiseShown(
	onThread: PayloadOf<'promised'> | null,
	wanted: string,
	now: Date
): { promise: PayloadOf<'promised'> | null; promiseWords: string | null } {
	const promise = onThread ?? (wanted === '' ? null : { due: null, words: wanted });
	return {
		promise,
		promiseWords: promise && (promise.due === null ? promise.words : dueWords(new Date(promise.due), now))
	};
}

/** The number that sources describe a code under; null where the words are none. */
export function codeIn(words: string): string | null {
	const spelled = parseSpelling(words);
	return (spelled.ok ? numbersOf(spelled.value.codes)[0] : undefined) ?? null;
}

/**
 * The open cases, the most urgent first, and what of them is finished today.
 *
 * @param me whoever looks
 */
export async function floorPage(services: Services, me: Member | null, asked: FloorAsked, now = new Date()) {
	const { cases, db, outlooks, settings, people } = services;
	const code = asked.code === '' ? null : codeIn(asked.code);
	const [all, atWork, opens, closes, notHere, { stamp: known }, withCode] = await Promise.all([
		openCases(db, cases),
		people.atWork(),
		settings.read('opensAtHour'),
		settings.read('closesAtHour'),
		notHereOn(services, now),
		knownHere(services),
		code === null ? new Set<string>() : cases.openWith(code)
	]);
	const number = numberIn(asked.words);
	const planned = floorPlan(all, {
		now,
		from: worksFrom(now, { opens, closes }),
		minutesLeft: minutesLeft(now, { opens, closes }),
		people: atWork.filter(({ role }) => role === 'technician').map(({ id }) => id),
		notHere
	});
	const chosen = shown(planned, asked.show, me?.id ?? null, asked.sort).filter(
		(one) =>
			(asked.with === '' || (one.withId ?? NOBODY) === asked.with) &&
			(asked.code === '' || withCode.has(one.id)) &&
			(asked.words === '' || one.number === number || isNamed(one.names, asked.words))
	);
	const size = asked.byPerson ? MOST_BY_PERSON : PAGE;
	const pages = Math.max(1, Math.ceil(chosen.length / size));
	const page = Math.min(pages, asked.page);
	const onPage = chosen.slice((page - 1) * size, page * size);
	const next = nextOf(planned, me?.id ?? null);
	const facts = new Map(planned.map((one) => [one.id, one]));
	const stepOf = async ({ id, length, summary }: CaseRow) => {
		const outlook = await outlooks.of(id, { seq: length, known });
		return summary.next && { ...summary.next, ...nextIn(outlook, { seq: length, known }) };
	};
	const rows = await Promise.all(
		(await cases.rowsOf(onPage.map(({ id }) => id))).map(async (row) => {
			const { late, tight, today, minutes, withId, toSign, waitsFor } = facts.get(row.id) as PlannedCase;
			const { id, number, wanted, vehicle, vehicleName, summary, chainBroken } = row;
			return {
				id,
				number,
				vehicle: { nickname: vehicle.nickname, plate: vehicle.plate },
				vehicleName,
				chainBroken,
				summary: { ...summary, next: await stepOf(row) },
				...promiseShown(summary.promise ?? null, wanted, now),
				withId,
				late,
				tight,
				today,
				takes: minutes && minutes.high > 0 ? hourWords(minutes.mean) : null,
				/** Minutes of work, as far as it can be worked on now. */
				minutes: toSign || waitsFor !== null ? 0 : (minutes?.mean ?? 0)
			};
		})
	);
	return {
		rows,
		page,
		pages,
		/** How many there are under each name, whatever else is asked. */
		counts: counts(planned, me?.id ?? null),
		found: chosen.length,
		today: planned.filter(({ today }) => today === 'yes').length,
		next: next && {
			id: next.id,
			nickname: next.nickname,
			due: next.dueAt === null ? null : dueWords(new Date(next.dueAt), now),
			late: next.late,
			isBack: next.isBack
		},
		people: atWork.map(({ id, name }) => ({ id, name, notHere: notHere.includes(id) })),
		closesAtHour: closes
	};
}
