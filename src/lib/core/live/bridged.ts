/** A gap in a channel that is read less often than others is bridged up to this many of its own intervals. */
const BRIDGED_INTERVALS = 3;

/** Carries a value forward over the rows in which a slower channel was not read. */
export function bridged(values: Float64Array, timeS: Float64Array): Float64Array {
	const filled = values.slice();
	let holes = 0;
	for (let i = 0; i < values.length; i++) if (Number.isNaN(values[i] ?? NaN)) holes += 1;
	if (holes === 0 || values.length - holes < 3) return filled;
	const steps = new Float64Array(values.length - holes - 1);
	let last = -1;
	let count = 0;
	for (let i = 0; i < values.length; i++) {
		if (Number.isNaN(values[i] ?? NaN)) continue;
		if (last >= 0) steps[count++] = (timeS[i] ?? 0) - (timeS[last] ?? 0);
		last = i;
	}
	const usual = steps.sort()[steps.length >> 1] ?? 0;
	last = -1;
	for (let i = 0; i < filled.length; i++) {
		if (!Number.isNaN(filled[i] ?? NaN)) last = i;
		else if (last >= 0 && (timeS[i] ?? 0) - (timeS[last] ?? 0) < BRIDGED_INTERVALS * usual)
			filled[i] = values[last] ?? NaN;
	}
	return filled;
}
