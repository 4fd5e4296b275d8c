/** Median of what is a number in a list; of a long one, of some thousands spread over it. */
export function middleOf(list: ArrayLike<number>): number {
	const stride = Math.max(1, Math.floor(list.length / MOST_SORTED));
	const kept = new Float64Array(Math.ceil(list.length / stride));
	let n = 0;
	for (let i = 0; i < list.length; i += stride) {
		const value = list[i] ?? NaN;
		if (!Number.isNaN(value)) kept[n++] = value;
	}
	return kept.subarray(0, n).sort()[n >> 1] ?? NaN;
}
const MOST_SORTED = 4_001;
