import { isWithin, type Excursion } from './outliers';
import { IRREGULAR, type Rhythm } from './periods';
import type { Pulses } from './pulses';
import { heightsOf, relativePeriods } from './ringMap';
import { patternLength, teethFromPauses } from './turns';

/** Fewer pulses hold no pattern. */
const LEAST_PULSES = 24;

/** A crack widens one gap by this much at most, in teeth. */
const MOST_WIDER = 3;

/**
 * Places per turn of the ring, a gap counted as the teeth it takes the room of: from pauses that come again, else from the
 * pattern of heights, of times up or of periods. More than the known number of teeth means that all are there and a gap has
 * opened: a crack.
 */
export function placesOf(
	pulses: Pulses,
	rhythm: Rhythm,
	outside: readonly Excursion[],
	passive: boolean,
	teeth: number | undefined
): number | null {
	const fromPauses = teethFromPauses(
		rhythm,
		rhythm.pauses.filter(
			({ after }) => !outside.some(({ long, sample }) => long && isWithin(pulses, after, sample))
		)
	);
	if (teeth !== undefined) {
		const wider = fromPauses === null ? 0 : fromPauses - teeth;
		return wider > 0 && wider <= MOST_WIDER ? fromPauses : teeth;
	}
	if (fromPauses !== null) return fromPauses;
	if (rhythm.irregularity > IRREGULAR || pulses.count < LEAST_PULSES) return null;
	const { tooth, period } = rhythm;
	const perTooth = (valueOf: (i: number) => number): Float64Array => {
		const list = new Float64Array((tooth.at(-1) ?? 0) + 1).fill(NaN);
		for (let i = 0; i < tooth.length; i++) list[tooth[i] ?? 0] = valueOf(i);
		return list;
	};
	if (passive) {
		const heights = heightsOf(pulses);
		const byHeight = patternLength(
			perTooth((i) => (heights[i] ?? NaN) * (period[Math.min(i, period.length - 1)] ?? NaN))
		);
		if (byHeight !== null) return byHeight;
	} else {
		const byDuty = patternLength(
			perTooth((i) => ((pulses.fall[i] ?? NaN) - (pulses.rise[i] ?? NaN)) / (period[i] ?? NaN))
		);
		if (byDuty !== null) return byDuty;
	}
	const relative = relativePeriods(rhythm);
	return patternLength(
		perTooth((i) => relative[i] ?? NaN),
		3
	);
}
