/** A line to be drawn; a hole is a NaN between two points. */
export interface Line {
	x: Float64Array;
	y: Float64Array;
}

/** A hole from so many times the usual interval on: the line is not drawn across it. */
const HOLE_INTERVALS = 5;

/**
 * What of a column is drawn between two times: per pixel its lowest and its highest sample, in the order in which they
 * came, so that a spike of one sample is never lost; every sample where they are no more than the pixels. The neighbours
 * outside are taken along, so that lines go on to the edge.
 *
 * @param timeS rising
 * @param shiftS added to the times
 */
export function decimate(
	timeS: Float64Array,
	values: Float64Array,
	fromS: number,
	toS: number,
	pixels: number,
	shiftS = 0
): Line {
	const from = Math.max(0, lowerBound(timeS, fromS) - 1);
	const to = Math.min(timeS.length, lowerBound(timeS, toS) + 2);
	const count = Math.max(0, to - from);
	const usual = count > 1 ? ((timeS[to - 1] ?? 0) - (timeS[from] ?? 0)) / (count - 1) : 0;
	const x: number[] = [];
	const y: number[] = [];
	let last = -1;
	const put = (i: number) => {
		const t = timeS[i] ?? 0;
		if (last >= 0 && count <= pixels && t - (timeS[last] ?? 0) > HOLE_INTERVALS * usual) {
			x.push(t + shiftS);
			y.push(NaN);
		}
		x.push(t + shiftS);
		y.push(values[i] ?? NaN);
		last = i;
	};
	if (count <= pixels) for (let i = from; i < to; i++) put(i);
	else {
		for (let p = 0; p < pixels; p++) {
			const a = from + Math.floor((p * count) / pixels);
			const b = from + Math.floor(((p + 1) * count) / pixels);
			let [low, high] = [-1, -1];
			for (let i = a; i < b; i++) {
				const value = values[i] ?? NaN;
				if (Number.isNaN(value)) continue;
				if (low < 0 || value < (values[low] ?? 0)) low = i;
				if (high < 0 || value > (values[high] ?? 0)) high = i;
			}
			if (low < 0) put(a);
			else if (low === high) put(low);
			else {
				put(Math.min(low, high));
				put(Math.max(low, high));
			}
		}
	}
	return { x: Float64Array.from(x), y: Float64Array.from(y) };
}

/** First place at which the sorted list is not below a value. */
export function lowerBound(sorted: Float64Array, value: number): number {
	let [low, high] = [0, sorted.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if ((sorted[middle] ?? 0) < value) low = middle + 1;
		else high = middle;
	}
	return low;
}
