import { isWithin, type Excursion } from './outliers';
import { IRREGULAR, type Rhythm } from './periods';
import type { Pulses } from './pulses';
import { heightsOf, relativePeriods } from './ringMap';
import { patternLength, teethFromPauses } from './turns';

/** Fewer pulses hold no pattern. */
const LEAST_PULSES = 24;

/** From pauses that come again, else from the pattern of heights, of times up or of periods. */
export function teethOf(
	pulses: Pulses,
	rhythm: Rhythm,
	outside: readonly Excursion[],
	passive: boolean,
	teeth: number | undefined
): number | null {
	if (teeth !== undefined) return teeth;
	const fromPauses = teethFromPauses(
		rhythm,
		rhythm.pauses.filter(
			({ after }) => !outside.some(({ long, sample }) => long && isWithin(pulses, after, sample))
		)
	);
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
