import { PROVE_FIRST } from '../../core/path/policy';
import type { Policy } from '../../core/path/repairCost';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';
import { diagnose, type Outcome } from './diagnosis';
import { drawCase, type TrialCase } from './trialCase';
import { WAYS } from './ways';

export type WayName = keyof typeof WAYS;

/** What many diagnoses came to (contract of `jaldi trial`). */
export interface TrialSummary {
	cases: number;
	/** Until the repair that cures begins: tests, getting there, and repairs that did not help. */
	meanMinutes: number;
	p90Minutes: number;
	/** Share of cases in which a good part was thrown away. */
	wrongPartRate: number;
	/** Share of cases handed back with something still wrong. */
	unresolvedRate: number;
	meanTests: number;
	/** Of the cases in which something was repaired: the first repair was of what was wrong. */
	top1Rate: number;
}

/** Vehicles without end: the same seed gives the same, whatever the way of working. */
export function* casesFrom(seed: number): Generator<TrialCase> {
	for (let i = 0; ; i++) {
		const own = mixedSeed(seed * 1_000_003 + i);
		yield drawCase(own, uniform(own));
	}
}

export interface Done {
	trial: TrialCase;
	outcome: Outcome;
}

/** Works on every one of a list of vehicles. */
export function* workedOn(
	cases: Iterable<TrialCase>,
	way: WayName,
	policy: Policy = PROVE_FIRST
): Generator<Done> {
	for (const trial of cases) yield { trial, outcome: diagnose(trial, WAYS[way], policy) };
}

/** Works on the first vehicles of a seed that are brought in: nobody brings one that shows nothing on six drives. */
export function* workedOnDrawn(
	count: number,
	seed: number,
	way: WayName,
	policy: Policy = PROVE_FIRST
): Generator<Done> {
	let brought = 0;
	for (const trial of casesFrom(seed)) {
		if (brought === count) return;
		const outcome = diagnose(trial, WAYS[way], policy, true);
		if (!outcome.brought) continue;
		brought += 1;
		yield { trial, outcome };
	}
}

export function summarise(outcomes: readonly Outcome[]): TrialSummary {
	const minutes = outcomes.map((one) => one.minutes).sort((a, b) => a - b);
	const share = (of: (one: Outcome) => boolean) => outcomes.filter(of).length / Math.max(1, outcomes.length);
	const mean = (of: (one: Outcome) => number) =>
		outcomes.reduce((sum, one) => sum + of(one), 0) / Math.max(1, outcomes.length);
	const repaired = outcomes.filter(({ firstRight }) => firstRight !== null);
	return {
		cases: outcomes.length,
		meanMinutes: mean((one) => one.minutes),
		p90Minutes: minutes[Math.min(minutes.length - 1, Math.floor(minutes.length * 0.9))] ?? 0,
		wrongPartRate: share(({ wrongParts }) => wrongParts > 0),
		unresolvedRate: share(({ resolved }) => !resolved),
		meanTests: mean(({ tests }) => tests),
		top1Rate: repaired.filter(({ firstRight }) => firstRight).length / Math.max(1, repaired.length)
	};
}
