import type { PathModel } from './model';
import { decide, Looking, minutesOf, type Candidate } from './nextTest';
import { Mending, repairMinutes, type Policy } from './repairCost';
import { likeliest, type Situation } from './situation';

/** How long a case may still take. */
export interface MinutesToGo {
	mean: number;
	/** Eight times in ten it lies between these. */
	low: number;
	high: number;
	/** Of the mean: tests with what it takes to get there. */
	testing: number;
}

const MOST_MOVES = 16;
/** States beyond these make the mean no better. */
const MOST_STATES = 80;
/** Tests that are thought of; the rest tell less a minute. */
const THOUGHT_OF = 12;

/**
 * Minutes still to go, by playing the case to its end many times: something is wrong by the belief, tests come out by the
 * model's chances, and the next step is chosen as it will be. Money is no time: parts count by their minutes only.
 *
 * @param random from 0 up to 1
 */
export function minutesToGo(...of: Parameters<typeof minutesToGoInParts>): MinutesToGo {
	const parts = minutesToGoInParts(...of);
	for (;;) {
		const { done, value } = parts.next();
		if (done) return value;
	}
}

/** The same in parts of some ten milliseconds, for where others wait for the same thread. */
export function* minutesToGoInParts(
	model: PathModel,
	whole: Situation,
	candidates: readonly Candidate[],
	policy: Policy,
	accessGained: ReadonlySet<string>,
	random: () => number,
	runs = 40
): Generator<void, MinutesToGo> {
	const situation = likeliest(whole, MOST_STATES);
	const thought = decide(model, situation, candidates, policy, accessGained, { ahead: 0 })
		.ranked.slice(0, THOUGHT_OF)
		.map(({ test }) => test);
	const game: Game = {
		model,
		situation,
		thought,
		policy,
		accessGained,
		random,
		looking: new Looking(model, situation),
		mending: new Mending(model, situation.faults, policy)
	};
	const played: ReturnType<typeof play>[] = [];
	while (played.length < runs) {
		yield;
		played.push(play(game));
	}
	const totals = played.map(({ testing, mending }) => testing + mending).sort((a, b) => a - b);
	const mean = (of: (one: { testing: number; mending: number }) => number) =>
		played.reduce((sum, one) => sum + of(one), 0) / Math.max(1, runs);
	const at = (share: number) => totals[Math.min(totals.length - 1, Math.floor(share * totals.length))] ?? 0;
	return {
		mean: mean((one) => one.testing + one.mending),
		low: at(0.1),
		high: at(0.9),
		testing: mean((one) => one.testing)
	};
}

interface Game {
	model: PathModel;
	situation: Situation;
	thought: readonly Candidate[];
	policy: Policy;
	accessGained: ReadonlySet<string>;
	random: () => number;
	looking: Looking;
	mending: Mending;
}

function play(game: Game): { testing: number; mending: number } {
	const { model, situation, thought, policy, accessGained, random, looking, mending } = game;
	const truth = drawn(situation.weight, random);
	const work = { ...policy, minutesPerMoney: 0 };
	const reached = new Set(accessGained);
	let weight = situation.weight;
	let left = [...thought];
	let faults = [...(situation.faults[truth] ?? [])];
	const minutes = { testing: 0, mending: 0 };
	const curedBy = (fault: number, repair: number) => model.faults[fault]?.curedBy.includes(repair) ?? false;
	for (let move = 0; move < MOST_MOVES; move++) {
		const next = decide(model, { ...situation, weight }, left, policy, reached, {
			looking,
			mending,
			ahead: 0
		});
		if (next.test) {
			const { test } = next.test;
			minutes.testing += minutesOf(test, reached);
			for (const { id } of test.access) reached.add(id);
			left = left.filter((one) => one !== test);
			weight = told(game, weight, test, truth);
			continue;
		}
		const [step] = next.mending;
		if (!step) break;
		minutes.mending += repairMinutes(model, step.repair, work);
		faults = faults.filter((fault) => !curedBy(fault, step.repair));
		if (faults.length === 0) break;
		// It was not that, or not that alone.
		weight = weight.map((w, i) =>
			(situation.faults[i] ?? []).every((fault) => curedBy(fault, step.repair)) ? 0 : w
		);
		const total = weight.reduce((a, b) => a + b, 0);
		if (!(total > 0)) break;
		weight = weight.map((w) => w / total);
	}
	return minutes;
}

function drawn(weight: Float64Array, random: () => number): number {
	let left = random() * weight.reduce((a, b) => a + b, 0);
	for (const [i, w] of weight.entries()) {
		left -= w;
		if (left <= 0) return i;
	}
	return weight.length - 1;
}

/** Weights after a test has come out by chance, as it does in the state that is true. */
function told({ looking, random }: Game, weight: Float64Array, test: Candidate, truth: number): Float64Array {
	let next = weight;
	for (const key of test.signs) {
		const chances = looking.of(key)?.chance;
		if (!chances) continue;
		const outcome = drawn(
			Float64Array.from(chances, (chance) => chance[truth] ?? 0),
			random
		);
		const chance = chances[outcome] ?? new Float64Array(weight.length);
		next = next.map((w, i) => w * (chance[i] ?? 0));
	}
	const total = next.reduce((a, b) => a + b, 0);
	return total > 0 ? next.map((w) => w / total) : weight;
}
