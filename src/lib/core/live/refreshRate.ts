/** Time that a module takes for one request, and for each value in it, over a diagnostic line: measured on usual ones. */
const REQUEST_S = 0.005;
const VALUE_S = 0.006;
/** Asked faster than this a vehicle tells nothing new. */
export const FASTEST_HZ = 50;

/**
 * How often a set of values can be read, one module after the other: every value asked for slows all of them.
 *
 * @param valuesPerModule how many values are asked of each module
 * @returns readings a second of the whole set; 0 for nothing chosen
 */
export function expectedRateHz(valuesPerModule: readonly number[]): number {
	const asked = valuesPerModule.filter((count) => count > 0);
	if (asked.length === 0) return 0;
	const roundS = asked.reduce((sum, count) => sum + REQUEST_S + VALUE_S * count, 0);
	return Math.min(FASTEST_HZ, 1 / roundS);
}
