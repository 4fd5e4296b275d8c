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

/** The cases of a trial: the same seed gives the same vehicles, whatever the way of working. */
export function casesOf(count: number, seed: number): TrialCase[] {
	return Array.from({ length: count }, (_, i) => {
		const own = mixedSeed(seed * 1_000_003 + i);
		return drawCase(own, uniform(own));
	});
}

export const runCase = (trial: TrialCase, way: WayName, policy: Policy = PROVE_FIRST): Outcome =>
	diagnose(trial, WAYS[way], policy);

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
