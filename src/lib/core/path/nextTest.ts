import type { PathModel, SignTable } from './model';
import { Mending, type Policy, type RepairStep } from './repairCost';
import { chancesIn, groupBits, groupBitsAfter, type Situation } from './situation';

/** A test that can be done now. */
export interface Candidate {
	id: string;
	/** Of the test itself. */
	minutes: number;
	/** What has to be got to, by id; paid for once. */
	access: readonly { id: string; minutes: number }[];
	signs: readonly string[];
}

/** One way a test can come out. */
export interface TestOutcome {
	/** Outcome by sign, for the signs that tell most. */
	seen: Record<string, string>;
	p: number;
	/** Bits that are then left to know. */
	bitsLeft: number;
}

export interface RankedTest {
	test: Candidate;
	/** With what it takes to get there from here. */
	minutes: number;
	/** Expected information about what to repair. */
	bits: number;
	bitsPerMinute: number;
	/** Minutes of mending that it is expected to save, less its own; below zero it is not worth it by itself. */
	saves: number;
	outcomes: TestOutcome[];
	/** The test that is then the best, where looking one further ahead changed the rank. */
	because: string | null;
}

export interface Decision {
	ranked: RankedTest[];
	/** Repairs in their order if nothing more were tested. */
	mending: RepairStep[];
	/** Expected minutes of that. */
	mendingMinutes: number;
	/** The best test, or null: repair now. */
	test: RankedTest | null;
	why: 'confident' | 'code-alone' | 'repairs-did-not-help' | 'nothing-tells-more' | 'test';
}

/** More signs than this of one test are not weighed together. */
const MOST_SIGNS = 2;
const LOOK_AHEAD = 6;
/** Only what tells most a minute is weighed in minutes of mending. */
const MOST_RANKED = 24;
const LEAST_BITS = 0.01;
/** A test that tells less than this share of what is open is no step, however short. */
const STEP_SHARE = 0.06;
/** Taking up the next test costs a moment of its own. */
const TAKING_UP_MIN = 3;
const LEAST_SAVING_MIN = 0.5;

interface Branch {
	weight: Float64Array;
	p: number;
	/** What is seen on the way to it, the last first; null = nothing yet. */
	seen: SeenOnTheWay | null;
}

interface SeenOnTheWay {
	key: string;
	outcome: string;
	before: SeenOnTheWay | null;
}

/** Outcome by sign, in the order in which they are seen. */
const seenIn = (seen: SeenOnTheWay | null): Record<string, string> =>
	seen === null ? {} : { ...seenIn(seen.before), [seen.key]: seen.outcome };

/** Minutes to do a test now. @param paid what has been got to */
export function minutesOf({ minutes, access }: Candidate, accessGained: ReadonlySet<string>): number {
	return access.reduce((sum, one) => sum + (accessGained.has(one.id) ? 0 : one.minutes), minutes);
}

interface Chances {
	key: string;
	outcomes: readonly string[];
	chance: Float64Array[];
}

/** The chances of every sign in a situation, worked out once: weights may change, states may not. */
export class Looking {
	private readonly bySign = new Map<string, Chances | null>();

	constructor(
		private readonly model: PathModel,
		private readonly situation: Situation
	) {}

	of(key: string): Chances | null {
		let found = this.bySign.get(key);
		if (found === undefined) {
			const table = this.model.sign(key);
			found =
				table && tells(this.model, table, this.situation)
					? { key, outcomes: table.outcomes, chance: chancesIn(this.model, table, this.situation) }
					: null;
			this.bySign.set(key, found);
		}
		return found;
	}
}

/** Whether a sign shows anything else than a sound vehicle in any state. */
function tells({ rows, background }: PathModel, { acts }: SignTable, { faults }: Situation): boolean {
	for (const list of faults)
		for (const fault of list) if (!background?.has(fault) && acts[rows.length + fault]) return true;
	return false;
}

function weighed(weight: Float64Array, chance: Float64Array): { weight: Float64Array; p: number } {
	const next = new Float64Array(weight.length);
	let p = 0;
	for (let i = 0; i < weight.length; i++) {
		const w = (weight[i] as number) * (chance[i] as number);
		next[i] = w;
		p += w;
	}
	return { weight: next, p };
}

/** Outcomes less likely than this are not gone into; they count as if they told nothing. */
const LEAST_P = 2e-3;

/** The ways a test can come out, by the signs of it that tell most. */
function branches(looking: Looking, situation: Situation, weight: Float64Array, test: Candidate): Branch[] {
	const told: Chances[] = [];
	for (const key of test.signs) {
		const chances = looking.of(key);
		if (chances) told.push(chances);
	}
	const before = sum(weight);
	const begin: Branch = { weight, p: before, seen: null };
	const [only] = told;
	if (told.length === 1 && only) return split(begin, only, before);
	const ranked = told
		.map((chances) => ({ chances, bits: bitsAfterSign(situation, weight, chances, before) }))
		.sort((a, b) => a.bits - b.bits)
		.slice(0, MOST_SIGNS);
	return ranked.reduce((list, { chances }) => list.flatMap((one) => split(one, chances, before)), [begin]);
}

/** Bits that a test leaves to know, on the whole. @param weight adds up to one */
function bitsAfterTest(
	looking: Looking,
	situation: Situation,
	weight: Float64Array,
	test: Candidate
): number {
	const told = test.signs.flatMap((key) => looking.of(key) ?? []);
	const [only] = told;
	// Of one sign nothing has to be kept.
	if (told.length === 1 && only) return bitsAfterSign(situation, weight, only, sum(weight));
	return bitsAfter(situation, branches(looking, situation, weight, test), 1);
}

function split(branch: Branch, { key, outcomes, chance }: Chances, before: number): Branch[] {
	const list: Branch[] = [];
	for (const [o, of] of chance.entries()) {
		const next = weighed(branch.weight, of);
		if (next.p <= LEAST_P * before) continue;
		const seen = { key, outcome: outcomes[o] ?? '', before: branch.seen };
		list.push({ weight: next.weight, p: next.p, seen });
	}
	return list;
}

/** Bits that one sign leaves to know, on the whole. */
function bitsAfterSign(
	situation: Situation,
	weight: Float64Array,
	{ chance }: Chances,
	before: number
): number {
	let left = 0;
	for (const of of chance) {
		const { p, bits } = groupBitsAfter(situation, weight, of);
		if (p > LEAST_P * before) left += (p / before) * bits;
	}
	return left;
}

const bitsAfter = (situation: Situation, list: readonly Branch[], before: number): number =>
	list.reduce((left, one) => left + (one.p / before) * groupBits(situation, one.weight, one.p), 0);

function sum(list: Float64Array): number {
	let all = 0;
	for (let i = 0; i < list.length; i++) all += list[i] as number;
	return all;
}

/** For many decisions over the same states. */
export interface DecideOptions {
	looking?: Looking;
	mending?: Mending;
	/** How many leading tests are looked at two steps deep; none is quicker and a little worse. */
	ahead?: number;
	/** How many are weighed in minutes of mending. */
	ranked?: number;
	/** Whether anything but codes speaks for a repair; a part is never ordered without. */
	looked?: (repair: number) => boolean;
	/** Whether a test bears on a repair: one of these comes first where only codes speak for a part. */
	bearsOn?: (test: string, repair: number) => boolean;
	/** Whether a test is about the place of a repair, or about all of the vehicle. */
	atPlace?: (test: string, repair: number) => boolean;
	/** A test that comes before a part that is likely, whatever the sum says: the short check of a module. */
	due?: (repair: number) => string | null;
	/** Whether all that is due before a repair is done: then what is sure of it closes. */
	checked?: (repair: number) => boolean;
	/**
	 * How many repairs did not help: after one no part is ordered, and after two nothing is repaired, before what is not
	 * described has been looked into once.
	 */
	withoutHelp?: number;
	/** Whether a repair has been done. */
	searched?: (repair: number) => boolean;
}

/**
 * Ranks tests by information per minute and says whether to go on testing or to repair. What a test
 * is worth is the expected fall of the cost of mending; for the leading tests a second test is looked ahead to in every
 * outcome, and it counts where it makes the two together worth more.
 *
 * @param paid what has been got to already, by id
 */
export function decide(
	model: PathModel,
	situation: Situation,
	candidates: readonly Candidate[],
	policy: Policy,
	accessGained: ReadonlySet<string>,
	{
		looking = new Looking(model, situation),
		mending = new Mending(model, situation.faults, policy),
		ahead: lookAhead = LOOK_AHEAD,
		ranked: mostRanked = MOST_RANKED,
		looked = () => true,
		bearsOn = () => false,
		due = () => null,
		atPlace = () => true,
		checked = () => false,
		withoutHelp = 0,
		searched = () => false
	}: DecideOptions = {}
): Decision {
	const { weight } = situation;
	const now = mending.cost(weight);
	const bitsNow = groupBits(situation, weight, sum(weight));
	const all = candidates.map((test) => {
		const minutes = minutesOf(test, accessGained);
		return { test, minutes, bits: bitsNow - bitsAfterTest(looking, situation, weight, test) };
	});
	const first = all
		.filter(({ bits }) => bits > LEAST_BITS)
		.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
	const leading = new Set(first.slice(0, lookAhead).map(({ test }) => test.id));
	const ranked = shortlist(first, mostRanked).map(
		({ test, minutes, bits }): RankedTest & { rate: number } => {
			const list = branches(looking, situation, weight, test);
			const costs = list.map((branch) => mending.cost(branch.weight).minutes);
			const rare = Math.max(0, 1 - list.reduce((s, one) => s + one.p, 0)) * now.minutes;
			const after = costs.reduce((a, b) => a + b, rare);
			let saves = now.minutes - after - minutes;
			let rate = (now.minutes - after) / minutes;
			let because: string | null = null;
			if (leading.has(test.id)) {
				const ahead = list.map((branch, i) => {
					const reached = new Set([...accessGained, ...test.access.map(({ id }) => id)]);
					return oneFurther(mending, situation, looking, branch, costs[i] ?? 0, first, test.id, reached);
				});
				const further = ahead.reduce((s, one) => s + one.cost, rare);
				const more = ahead.reduce((s, one) => s + one.minutes, 0);
				const rateOfTwo = (now.minutes - further + more) / (minutes + more);
				if (now.minutes - further - minutes > saves) saves = now.minutes - further - minutes;
				if (rateOfTwo > rate) {
					rate = rateOfTwo;
					because = ahead.reduce(
						(best, one) => (one.gain > best.gain ? one : best),
						ahead[0] ?? NO_MORE
					).test;
				}
			}
			const outcomes = list
				.map(({ seen, p, weight: w }) => ({ seen: seenIn(seen), p, bitsLeft: groupBits(situation, w, p) }))
				.sort((a, b) => b.p - a.p);
			return { test, minutes, bits, bitsPerMinute: bits / minutes, saves, outcomes, because, rate };
		}
	);
	ranked.sort((a, b) => b.rate - a.rate || b.bitsPerMinute - a.bitsPerMinute);
	const decision = concluded(model, ranked, now, bitsNow, policy, { looked, atPlace, checked });
	const done = decision.why === 'nothing-tells-more' ? likeliestFirst(decision, mending, weight) : decision;
	const [part] = done.mending;
	const isPart = part !== undefined && model.repairs[part.repair]?.part === true;
	const isSearched = [...(model.background ?? [])].some((at) => searched(model.faults[at]?.curedBy[0] ?? -1));
	if (!done.test && !isSearched && (withoutHelp >= STOP_REPAIRING_FROM || (withoutHelp > 0 && isPart)))
		return generalMethodFirst({ ...done, why: 'repairs-did-not-help' }, mending, weight, searched);
	const likeliest = likeliestOf(done.mending);
	const before = likeliest && likeliest.p >= DUE_FROM ? due(likeliest.repair) : null;
	const short = before === null ? undefined : all.find(({ test }) => test.id === before);
	if (!short && (done.test || !part || !isPart || looked(part.repair))) return done;
	// Only codes speak for a part: the test that tells most of its place comes first, however little it tells.
	const bearing =
		short ??
		all
			.filter(({ test }) => part && bearsOn(test.id, part.repair))
			.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes || a.minutes - b.minutes)[0];
	if (!bearing) return generalMethodFirst(done, mending, weight, searched);
	const { test, minutes, bits } = bearing;
	const known = ranked.find((one) => one.test === test);
	const outcomes = branches(looking, situation, weight, test)
		.map(({ seen, p, weight: w }) => ({ seen: seenIn(seen), p, bitsLeft: groupBits(situation, w, p) }))
		.sort((a, b) => b.p - a.p);
	const told = known ?? {
		test,
		minutes,
		bits,
		bitsPerMinute: bits / minutes,
		saves: 0,
		outcomes,
		because: null
	};
	return { ...done, ranked: known ? ranked : [told, ...ranked], test: told, why: 'test' };
}

/** A part that is likelier than not is checked for before anything else is chased. */
const DUE_FROM = 0.5;
/** Who was wrong so often is no longer guessing: power, ground, signal and bus by the diagram are next. */
const STOP_REPAIRING_FROM = 2;
/** Nobody begins with what hardly helps because it is cheap. */
const CHEAP_TRY_FROM = 0.5;

/** The repair that it is likeliest to be, and how likely. */
function likeliestOf(steps: readonly RepairStep[]): { repair: number; p: number } | null {
	let left = 1;
	let best: { repair: number; p: number } | null = null;
	for (const { repair, cures } of steps) {
		if (left * cures > (best?.p ?? 0)) best = { repair, p: left * cures };
		left *= 1 - cures;
	}
	return best;
}

/** Where no test tells more and the cheapest try is a bad one, the likeliest repair comes first. */
function likeliestFirst(decision: Decision, mending: Mending, weight: Float64Array): Decision {
	const best = likeliestOf(decision.mending);
	const [first] = decision.mending;
	if (!first || !best || first.cures >= CHEAP_TRY_FROM || best.repair === first.repair) return decision;
	const { minutes, steps } = mending.cost(weight, best.repair);
	return { ...decision, mending: steps, mendingMinutes: minutes };
}

/** A part that only codes speak for is not ordered, whatever the sum says: what is not described is looked into first. */
function generalMethodFirst(
	decision: Decision,
	mending: Mending,
	weight: Float64Array,
	searched: (repair: number) => boolean
): Decision {
	const first = mending.searchFirst(weight, searched);
	if (!first) return decision;
	const { minutes, steps } = mending.cost(weight, first.repair);
	// Where nobody thinks of it any more it is still the way to go on.
	const before = steps[0]?.repair === first.repair ? [] : [first];
	const why = decision.why === 'repairs-did-not-help' ? decision.why : 'code-alone';
	return { ...decision, mending: [...before, ...steps], mendingMinutes: minutes, why };
}

/** What tells most a minute, and what tells most whatever it takes: the decisive test may be a dear one. */
function shortlist<T extends { bits: number }>(byRate: readonly T[], most: number): T[] {
	const dear = [...byRate].sort((a, b) => b.bits - a.bits).slice(0, Math.ceil(most / 3));
	return [...new Set([...byRate.slice(0, most - dear.length), ...dear])];
}

const NO_MORE = { cost: 0, minutes: 0, gain: 0, test: null as string | null };

/** The best of the leading tests after one outcome, where it is worth it. Costs are for the branch's weight. */
function oneFurther(
	mending: Mending,
	situation: Situation,
	looking: Looking,
	branch: Branch,
	cost: number,
	first: readonly { test: Candidate }[],
	done: string,
	accessGained: ReadonlySet<string>
) {
	let best = { ...NO_MORE, cost };
	const known = mending.knownCost(branch.weight);
	for (const { test } of first.slice(0, LOOK_AHEAD + 1)) {
		if (test.id === done) continue;
		const minutes = minutesOf(test, accessGained) * branch.p;
		if (known + minutes >= best.cost) continue;
		const after = costBelow(mending, branches(looking, situation, branch.weight, test), best.cost - minutes);
		if (after !== null)
			best = { cost: after + minutes, minutes, gain: cost - after - minutes, test: test.id };
	}
	return best;
}

/** Minutes of mending over all outcomes of a test; null as soon as it is plain that they are no fewer than some. */
function costBelow(mending: Mending, list: readonly Branch[], most: number): number | null {
	let after = 0;
	let least = list.reduce((all, { weight }) => all + mending.knownCost(weight), 0);
	for (const { weight } of list) {
		if (after + least >= most) return null;
		least -= mending.knownCost(weight);
		after += mending.cost(weight).minutes;
	}
	return after < most ? after : null;
}

/** Surer than this nobody wants to be. */
const CLOSED = 0.99;

function concluded(
	model: PathModel,
	ranked: (RankedTest & { rate: number })[],
	now: { minutes: number; steps: RepairStep[] },
	bitsNow: number,
	policy: Policy,
	{ looked, atPlace, checked }: Required<Pick<DecideOptions, 'looked' | 'atPlace' | 'checked'>>
): Decision {
	const [repair] = now.steps;
	const part = repair !== undefined && model.repairs[repair.repair]?.part === true;
	const sure =
		repair === undefined ||
		(repair.cures >= (part ? policy.confidence : policy.tryConfidence) && (!part || looked(repair.repair)));
	// What is sure closes; a little less sure, only what is at that place is still looked at.
	const closed = sure && repair !== undefined && (repair.cures >= CLOSED || checked(repair.repair));
	const worth =
		(closed
			? undefined
			: ranked.find(
					({ saves, test }) =>
						saves > LEAST_SAVING_MIN && (!sure || repair === undefined || atPlace(test.id, repair.repair))
				)) ?? null;
	const base = { ranked, mending: now.steps, mendingMinutes: now.minutes };
	if (sure && !worth) return { ...base, test: null, why: ranked[0] ? 'confident' : 'nothing-tells-more' };
	if (worth) return { ...base, test: worth, why: 'test' };
	// The policy wants more certainty than money does: the step that tells most for its minutes.
	const worthTaking = ({ bits, minutes }: RankedTest) => bits / (minutes + TAKING_UP_MIN);
	const steps = ranked.filter(({ bits }) => bits > bitsNow * STEP_SHARE);
	const [surest = null] = steps.sort((a, b) => worthTaking(b) - worthTaking(a));
	return { ...base, test: surest, why: surest ? 'test' : 'nothing-tells-more' };
}
