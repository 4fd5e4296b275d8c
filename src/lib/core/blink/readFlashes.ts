import { fail, ok, type Result } from '../result';
import { gapClasses, type Gap } from './gapClasses';

/** One flash: when it began, and when it went out where that is known. Seconds. */
export interface Flash {
	onS: number;
	offS: number | null;
}

/** A code that a lamp showed. */
export interface LampReading {
	/** Flashes in each group: [3, 4] for three, a pause, four. */
	groups: number[];
	/** How many times it was shown whole and the same. */
	repeats: number;
	/** That this reading is right rather than another, 0 to 1. */
	confidence: number;
	/** Mean seconds from flash to flash, over the pause between groups, between showings; null = none was seen. */
	gapS: Record<Gap, number | null>;
	/** All codes that the lamp shows in turn, each once, in the order in which they were first seen. */
	codes: { groups: number[]; repeats: number }[];
	/** Whether one more showing would be worth waiting for. */
	wantsAnother: boolean;
}

/** A lamp that stays lit this many times as long as its flashes tells a beginning, and is no flash. */
const OPENING = 2.5;
const SURE = 0.9;
const SLIP_BESIDE = 4;
const MOST_FLASHES = 2000;

/** That a code has so many groups. */
const GROUP_COUNTS = [0.06, 0.6, 0.16, 0.1];
const MANY_GROUPS = 0.01;
const DIGITS = 9;
/** More flashes in one group than a hand can count are hardly ever meant. */
const TOO_MANY = 0.05;
const SAME_AGAIN = 0.95;
/** Tapped along from the middle of a showing, or stopped in one. */
const CUT_AT_START = 0.04;
const CUT_AT_END = 0.08;
const ANOTHER = 0.02;

/**
 * Reads a lamp code from the times of its flashes, however fast the lamp is. All ways of telling the gaps apart are weighed
 * by their lengths and by how well the showings repeat; the confidence is the best reading's share of all of them.
 *
 * @param flashes in any order; error: fewer than one, two at the same time, or one that ends before it begins
 */
export function readFlashes(flashes: readonly Flash[]): Result<LampReading> {
	const checked = inOrder(flashes);
	if (!checked.ok) return checked;
	const { starts, litS, openings } = checked.value;
	if (starts.length === 0) return fail('there is no flash: expected the seconds at which the lamp lit');
	const gapsS = starts.slice(1).map((at, i) => at - (starts[i] ?? 0));
	const byReading = new Map<string, { weight: number; best: Told }>();
	const tried = gapClasses(gapsS, litS).map(({ gaps, log }) => {
		const forced = gaps.map((gap, i) => (openings.has(i + 1) ? 'cycle' : gap));
		const showings = showingsOf(forced);
		const { told, log: repeating } = weighed(showings);
		return { gaps: forced, told, log: log + repeating };
	});
	const most = Math.max(...tried.map(({ log }) => log));
	for (const { gaps, told, log } of tried) {
		const key = told.groups.join('-');
		const known = byReading.get(key);
		const weight = Math.exp(log - most);
		const best = !known || log > known.best.log ? { ...told, gaps, log } : known.best;
		byReading.set(key, { weight: (known?.weight ?? 0) + weight, best });
	}
	const all = [...byReading.values()].sort((a, b) => b.weight - a.weight);
	const total = all.reduce((sum, { weight }) => sum + weight, 0);
	const [first] = all;
	if (!first) return fail('no code can be made of these flashes');
	const { groups, repeats, codes, gaps } = first.best;
	const confidence = first.weight / total;
	return ok({
		groups,
		repeats,
		confidence,
		gapS: {
			flash: meanOf(gapsS, gaps, 'flash'),
			group: meanOf(gapsS, gaps, 'group'),
			cycle: meanOf(gapsS, gaps, 'cycle')
		},
		codes,
		wantsAnother: confidence < SURE || repeats < 2 || codes.some((code) => isInDoubt(code, repeats))
	});
}

/** Seen once while others came twice or thrice may be another code; beside one that came often it is a slip of the hand. */
const isInDoubt = (code: { repeats: number }, most: number) => code.repeats < 2 && most < SLIP_BESIDE;

interface InOrder {
	starts: number[];
	litS: number | null;
	/** Flashes before which the lamp was lit long: a showing begins there. */
	openings: Set<number>;
}

function inOrder(flashes: readonly Flash[]): Result<InOrder> {
	if (flashes.length > MOST_FLASHES)
		return fail(`expected up to ${MOST_FLASHES} flashes, got ${flashes.length}`);
	const sorted = [...flashes].sort((a, b) => a.onS - b.onS);
	for (const [i, { onS, offS }] of sorted.entries()) {
		if (offS !== null && offS <= onS)
			return fail(`the flash at ${onS} s goes out at ${offS} s, before it was lit`);
		const next = sorted[i + 1];
		if (next && next.onS === onS) return fail(`two flashes begin at ${onS} s`);
		if (next && offS !== null && next.onS < offS)
			return fail(`the flash at ${next.onS} s begins before the one at ${onS} s is out`);
	}
	const lit = sorted.flatMap(({ onS, offS }) => (offS === null ? [] : [offS - onS])).sort((a, b) => a - b);
	const litS = lit[Math.floor((lit.length - 1) / 2)] ?? null;
	const starts: number[] = [];
	const openings = new Set<number>();
	for (const { onS, offS } of sorted) {
		if (litS !== null && offS !== null && offS - onS > OPENING * litS) openings.add(starts.length);
		else starts.push(onS);
	}
	return ok({ starts, litS, openings });
}

/** Groups of each showing, in order. */
function showingsOf(gaps: readonly Gap[]): number[][] {
	const showings: number[][] = [[1]];
	for (const gap of gaps) {
		const now = showings.at(-1) ?? [];
		if (gap === 'cycle') showings.push([1]);
		else if (gap === 'group') now.push(1);
		else now.push((now.pop() ?? 0) + 1);
	}
	return showings;
}

interface Reading {
	groups: number[];
	repeats: number;
	codes: { groups: number[]; repeats: number }[];
}
interface Told extends Reading {
	gaps: Gap[];
	log: number;
}

const same = (a: readonly number[], b: readonly number[]) =>
	a.length === b.length && a.every((n, i) => n === b[i]);

/** What is left of a showing that was stopped in the middle. */
function isBeginningOf(cut: readonly number[], whole: readonly number[]): boolean {
	const last = cut.length - 1;
	return (
		!same(cut, whole) &&
		cut.length <= whole.length &&
		cut.every((n, i) => (i < last ? n === whole[i] : n <= (whole[i] ?? 0)))
	);
}
const isEndOf = (cut: readonly number[], whole: readonly number[]) =>
	isBeginningOf([...cut].reverse(), [...whole].reverse());

/** Logarithm of how likely a code is before anything is seen of it. */
function codeLog(groups: readonly number[]): number {
	const count = GROUP_COUNTS[groups.length - 1] ?? MANY_GROUPS / groups.length;
	const long = groups.filter((n) => n > DIGITS + 1).length;
	return Math.log(count) - groups.length * Math.log(DIGITS) + long * Math.log(TOO_MANY);
}

/** The code of a row of showings, and how well they repeat it. */
function weighed(showings: readonly number[][]): { told: Reading; log: number } {
	const inner = showings.slice(1, -1);
	const [first = [], last = []] = [showings[0], showings.at(-1)];
	const whole = [...showings];
	let log = 0;
	if (showings.length > 1) {
		const after = inner[0] ?? last;
		if (isEndOf(first, after)) {
			whole.shift();
			log += Math.log(CUT_AT_START);
		}
		const before = inner.at(-1) ?? first;
		if (isBeginningOf(last, before) && whole.length > 1) {
			whole.pop();
			log += Math.log(CUT_AT_END);
		}
	}
	const codes: Reading['codes'] = [];
	let at = -1;
	for (const groups of whole) {
		const known = codes.findIndex((code) => same(code.groups, groups));
		// The same again, or the next of those that are shown in turn.
		const awaited = known >= 0 && (known === at || known === (at + 1) % codes.length);
		log += awaited ? Math.log(SAME_AGAIN) : codeLog(groups) + (codes.length > 0 ? Math.log(ANOTHER) : 0);
		const code = codes[known];
		if (code) code.repeats += 1;
		else codes.push({ groups, repeats: 1 });
		at = code ? known : codes.length - 1;
	}
	const [most = { groups: [1], repeats: 1 }] = [...codes].sort((a, b) => b.repeats - a.repeats);
	return { told: { ...most, codes }, log };
}

function meanOf(gapsS: readonly number[], gaps: readonly Gap[], kind: Gap): number | null {
	const own = gapsS.filter((_, i) => gaps[i] === kind);
	return own.length === 0 ? null : own.reduce((sum, gap) => sum + gap, 0) / own.length;
}
