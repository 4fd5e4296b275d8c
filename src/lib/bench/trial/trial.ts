import type { VehicleType } from '../../../../library';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';
import type { Outcome } from './diagnosis';
import { drawCase, type TrialCase } from './trialCase';
import { WAYS } from './ways';

export type WayName = keyof typeof WAYS;

/** What many diagnoses came to. */
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
export function* casesFrom(seed: number, described?: VehicleType): Generator<TrialCase> {
	for (let i = 0; ; i++) {
		const own = mixedSeed(seed * 1_000_003 + i);
		yield drawCase(own, uniform(own), described);
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
