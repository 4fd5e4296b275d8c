import type { VehicleType } from '../../../../library';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';
import type { Advice, Outcome } from './diagnosis';
import { drawCase, USUAL_DRAW, type Draw, type TrialCase } from './trialCase';
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
	/** Of repairs advised with so much certainty (from included, to excluded but for 1), how many there were and cured something. */
	calibration: { from: number; to: number; claims: number; true: number }[];
	/** Of the repairs advised, the share that bought a part in place of a good one. */
	harmRate: number;
	/** Of the vehicles with a fault that is not described, the share in which that was said; null where there were none. */
	unknownNamedRate: number | null;
}

/** Between these a repair's certainty is told. */
const CERTAINTIES = [0, 0.5, 0.7, 0.8, 0.9, 1];

function calibrationOf(advised: readonly Advice[]): TrialSummary['calibration'] {
	return CERTAINTIES.slice(1).map((to, i) => {
		const from = CERTAINTIES[i] ?? 0;
		const within = advised.filter(({ p }) => p !== null && p >= from && (p < to || to === 1));
		return { from, to, claims: within.length, true: within.filter(({ held }) => held).length };
	});
}

/** Vehicles without end: the same seed gives the same, whatever the way of working. */
export function* casesFrom(
	seed: number,
	described?: VehicleType,
	draw: Draw = USUAL_DRAW
): Generator<TrialCase> {
	for (let i = 0; ; i++) {
		const own = mixedSeed(seed * 1_000_003 + i);
		yield drawCase(own, uniform(own), described, draw);
	}
}

export function summarise(outcomes: readonly Outcome[]): TrialSummary {
	const minutes = outcomes.map((one) => one.minutes).sort((a, b) => a - b);
	const share = (of: (one: Outcome) => boolean) => outcomes.filter(of).length / Math.max(1, outcomes.length);
	const mean = (of: (one: Outcome) => number) =>
		outcomes.reduce((sum, one) => sum + of(one), 0) / Math.max(1, outcomes.length);
	const advised = outcomes.flatMap((one) => one.advised);
	const unknown = outcomes.filter((one) => one.unknown);
	const repaired = outcomes.filter(({ firstRight }) => firstRight !== null);
	return {
		cases: outcomes.length,
		meanMinutes: mean((one) => one.minutes),
		p90Minutes: minutes[Math.min(minutes.length - 1, Math.floor(minutes.length * 0.9))] ?? 0,
		wrongPartRate: share(({ wrongParts }) => wrongParts > 0),
		unresolvedRate: share(({ resolved }) => !resolved),
		meanTests: mean(({ tests }) => tests),
		top1Rate: repaired.filter(({ firstRight }) => firstRight).length / Math.max(1, repaired.length),
		calibration: calibrationOf(advised),
		harmRate: advised.filter(({ wrongPart }) => wrongPart).length / Math.max(1, advised.length),
		unknownNamedRate:
			unknown.length > 0 ? unknown.filter(({ calledUnknown }) => calledUnknown).length / unknown.length : null
	};
}
