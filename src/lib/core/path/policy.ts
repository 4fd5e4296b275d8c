import type { Policy } from './repairCost';

/** The two ends of what shops do, and what lies between. */
export const TRACK_RECORD: Policy = {
	confidence: 0.6,
	tryConfidence: 0.35,
	minutesPerMoney: 0.7,
	wrongPartMinutes: 30,
	provingMinutes: 20,
	unresolvedMinutes: 240
};
export const PROVE_FIRST: Policy = {
	confidence: 0.975,
	tryConfidence: 0.95,
	minutesPerMoney: 0.7,
	wrongPartMinutes: 480,
	provingMinutes: 20,
	unresolvedMinutes: 600
};

/** @param share 0 = on track record, 1 = prove first */
export function policyAt(share: number): Policy {
	const between = (low: number, high: number) => low + (high - low) * Math.min(1, Math.max(0, share));
	return {
		// Odds and not probabilities are evened out: from 0.9 to 0.95 is as far as from 0.95 to 0.975.
		confidence: 1 - inRatios(1 - TRACK_RECORD.confidence, 1 - PROVE_FIRST.confidence, share),
		tryConfidence: 1 - inRatios(1 - TRACK_RECORD.tryConfidence, 1 - PROVE_FIRST.tryConfidence, share),
		minutesPerMoney: TRACK_RECORD.minutesPerMoney,
		wrongPartMinutes: inRatios(TRACK_RECORD.wrongPartMinutes, PROVE_FIRST.wrongPartMinutes, share),
		provingMinutes: TRACK_RECORD.provingMinutes,
		unresolvedMinutes: between(TRACK_RECORD.unresolvedMinutes, PROVE_FIRST.unresolvedMinutes)
	};
}

/** From one number to another in even ratios. */
const inRatios = (low: number, high: number, share: number) =>
	low * (high / low) ** Math.min(1, Math.max(0, share));
