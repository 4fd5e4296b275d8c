/** Middle of a list (the upper one of two); NaN of an empty one. The list stays as it is. */
export function medianOf(list: ArrayLike<number>): number {
	const sorted = Float64Array.from(list).sort();
	return sorted[sorted.length >> 1] ?? NaN;
}
