/** Value below which a share of a rising list lies, between two neighbours in proportion; NaN of an empty list. */
export function quantileOfSorted(sorted: ArrayLike<number>, share: number): number {
	if (sorted.length === 0) return NaN;
	const at = share * (sorted.length - 1);
	const below = Math.floor(at);
	const low = sorted[below] ?? NaN;
	const high = sorted[Math.min(sorted.length - 1, below + 1)] ?? NaN;
	return low + (high - low) * (at - below);
}
