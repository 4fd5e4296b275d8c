import type { PayloadOf } from '../../case/entries/entry';
import { dueWords } from '../../case/progress/dueWords';
import { hourWords, minutesLeft } from '../../case/progress/floorWords';
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
import { format } from 'date-fns/format';
import type { Member } from '../accounts/members';
import type { Author } from '../db/threads';
import { caseNumber, type CaseRow } from '../db/cases';
import { openCases } from '../db/openCases';
import { nextIn } from '../db/outlook';
import type { Services } from '../services';
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

/** The day by the shop's clock. */
const dayOf = (now: Date): string => format(now, 'yyyy-MM-dd');

async function notHereOn({ settings }: Services, now: Date): Promise<string[]> {
	const said = await settings.read('notHere');
	return said.day === dayOf(now) ? said.ids : [];
}

/** Says of somebody whether they are here today. */
export async function sayHere(
	services: Services,
	{ id, here }: { id: string; here: boolean },
	by: Author,
	now = new Date()
): Promise<void> {
	const others = (await notHereOn(services, now)).filter((one) => one !== id);
	await services.settings.write('notHere', { day: dayOf(now), ids: here ? others : [...others, id] }, by);
}

/** A case as the floor shows it. */
export type FloorRow = Awaited<ReturnType<typeof floorPage>>['rows'][number];

const promisedWords = ({ due, words }: PayloadOf<'promised'>, now: Date): string =>
	due === null ? words : dueWords(new Date(due), now);

const hasWords = (one: PlannedCase, words: string): boolean => {
	const text =
		`${one.nickname} ${one.plate} ${one.plate.replaceAll(' ', '')} ${caseNumber(one.number)}`.toLowerCase();
	return words
		.toLowerCase()
		.split(/\s+/)
		.every((word) => text.includes(word));
};

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
	const [all, atWork, closesAtHour, notHere, { stamp: known }, having] = await Promise.all([
		openCases(db, cases),
		people.atWork(),
		settings.read('closesAtHour'),
		notHereOn(services, now),
		knownHere(services),
		code === null ? null : openCases(db, cases, code).then((some) => new Set(some.map(({ id }) => id)))
	]);
	const planned = floorPlan(all, {
		now,
		minutesLeft: minutesLeft(now, closesAtHour),
		people: atWork.filter(({ role }) => role === 'technician').map(({ id }) => id),
		notHere
	});
	const chosen = shown(planned, asked.show, me?.id ?? null, asked.sort).filter(
		(one) =>
			(asked.with === '' || (one.withId ?? NOBODY) === asked.with) &&
			(asked.code === '' || having?.has(one.id)) &&
			hasWords(one, asked.words)
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
			// Cases of before have what was asked for in words alone.
			const promise = summary.promise ?? (wanted === '' ? null : { due: null, words: wanted });
			return {
				id,
				number,
				vehicle: { nickname: vehicle.nickname, plate: vehicle.plate },
				vehicleName,
				chainBroken,
				summary: { ...summary, next: await stepOf(row) },
				promise,
				promiseWords: promise && promisedWords(promise, now),
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
	const [nextRow] = next ? await cases.rowsOf([next.id]) : [];
	return {
		rows,
		page,
		pages,
		/** How many there are under each name, whatever else is asked. */
		counts: counts(planned, me?.id ?? null),
		found: chosen.length,
		today: planned.filter(({ today }) => today === 'yes').length,
		next: nextRow
			? {
					id: nextRow.id,
					nickname: nextRow.vehicle.nickname,
					title: (await stepOf(nextRow))?.title ?? null,
					due: next?.dueAt ? dueWords(new Date(next.dueAt), now) : null,
					late: next?.late ?? false,
					isBack: next?.isBack ?? false
				}
			: null,
		people: atWork.map(({ id, name }) => ({ id, name, notHere: notHere.includes(id) })),
		closesAtHour
	};
}
