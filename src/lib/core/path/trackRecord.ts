/**
 * A shop's own outcomes over the library's odds: the mean of a Dirichlet belief whose pseudo-counts are the library's odds
 * times a strength. With no outcomes it is the library's; with many it is the shop's.
 *
 * @param odds by fault, any positive scale
 * @param counts proven outcomes by fault
 * @param strength how many outcomes the library's odds are worth
 * @returns weights by fault on the library's scale. Throws RangeError for a negative count.
 */
export function learnedWeights(
	odds: Readonly<Record<string, number>>,
	counts: Readonly<Record<string, number>>,
	strength: number
): Record<string, number> {
	const scale = Object.values(odds).reduce((sum, weight) => sum + weight, 0);
	const n = Object.values(counts).reduce((sum, count) => {
		if (count < 0) throw new RangeError(`an outcome cannot have been seen ${count} times`);
		return sum + count;
	}, 0);
	return Object.fromEntries(
		Object.entries(odds).map(([fault, weight]) => {
			const mean = ((strength * weight) / scale + (counts[fault] ?? 0)) / (strength + n);
			return [fault, mean * scale];
		})
	);
}
