/** What a learning drive asks for: a band of speed and of steering, held for a time in all. Left is positive. */
export interface DrivePhase {
	id: string;
	words: string;
	speedKmh: readonly [low: number, high: number];
	steeringDeg: readonly [low: number, high: number];
	forS: number;
	/** Only counts once all others are done. */
	last: boolean;
}

/** Seconds gathered of each phase, at most what it asks for. */
export type Coverage = Record<string, number>;

/** A pause in the readings longer than this counts for nothing. */
const MOST_STEP_S = 1;

export const noCoverage = (phases: readonly DrivePhase[]): Coverage =>
	Object.fromEntries(phases.map(({ id }) => [id, 0]));

export const isCovered = ({ id, forS }: DrivePhase, coverage: Coverage): boolean =>
	(coverage[id] ?? 0) >= forS - 1e-9;

/**
 * Adds one reading to the coverage of a drive.
 *
 * @param dtS since the reading before
 * @param steeringDeg null where it is not known: then only phases that allow every angle count
 */
export function cover(
	phases: readonly DrivePhase[],
	coverage: Coverage,
	dtS: number,
	speedKmh: number,
	steeringDeg: number | null
): Coverage {
	if (!(dtS > 0) || dtS > MOST_STEP_S) return coverage;
	const others = phases.filter(({ last }) => !last).every((phase) => isCovered(phase, coverage));
	const next = { ...coverage };
	for (const phase of phases) {
		if (phase.last && !others) continue;
		const steady = speedKmh >= phase.speedKmh[0] && speedKmh <= phase.speedKmh[1];
		const [low, high] = phase.steeringDeg;
		const steered =
			steeringDeg === null ? low <= -720 && high >= 720 : steeringDeg >= low && steeringDeg <= high;
		if (steady && steered) next[phase.id] = Math.min(phase.forS, (next[phase.id] ?? 0) + dtS);
	}
	return next;
}

export const isComplete = (phases: readonly DrivePhase[], coverage: Coverage): boolean =>
	phases.every((phase) => isCovered(phase, coverage));
