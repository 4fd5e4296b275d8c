/**
 * Whether a constant ratio is that of another tooth count: readings of a ring with n teeth, counted as if it had N, are off
 * by exactly n/N; a tyre can be off by any amount.
 */
export interface ToothFit {
	/** Teeth that the ring would have. */
	teeth: number;
	/** Chance that a tyre of any size would come as near to a whole tooth, 0–1. */
	byChance: number;
}

/** A ratio measured over a minute of even driving is good to about this. */
const RATIO_ERROR = 0.002;
const MOST_TEETH_OFF = 12;

/**
 * @param ratio reading over that of the others
 * @param teeth what the module counts with
 * @returns null where no whole number of teeth makes this ratio
 */
export function toothFit(ratio: number, teeth: number): ToothFit | null {
	const other = Math.round(ratio * teeth);
	if (other === teeth || Math.abs(other - teeth) > MOST_TEETH_OFF) return null;
	const misfit = Math.abs(ratio - other / teeth);
	if (misfit > RATIO_ERROR) return null;
	return { teeth: other, byChance: Math.min(1, 2 * RATIO_ERROR * teeth) };
}

/** Ring or tyre, as far as the ratio of a single odd wheel can tell. @param teeth null where not known */
export function oddWheelSentence(ratio: number, teeth: number | null): string {
	if (teeth === null) {
		return 'A ring with another number of teeth, or a tyre of another size: read the sidewall first, it costs nothing.';
	}
	const fit = toothFit(ratio, teeth);
	if (!fit) {
		return `No whole number of teeth makes this ratio on a ring of ${teeth}: look at the tyre, its size, wear and pressure.`;
	}
	return `It is just what a ring with ${fit.teeth} teeth for ${teeth} would read; a tyre comes so near by chance in ${Math.max(1, Math.round(fit.byChance * 10))} of 10 cases. Read the sidewall first, then count teeth with the oscilloscope.`;
}
