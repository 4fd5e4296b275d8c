/** Live data as columns over one clock. */
export interface Recording {
	/** Rising, in seconds from the first row. */
	timeS: Float64Array;
	/** By name (`front_left`, `vehicle`, `steering` …) in the order of the file; NaN where nothing was read. */
	channels: Map<string, Float64Array>;
	/** Rows that were left out, and why. */
	problems: { line: number; reason: string }[];
}

/** `front_left`, `axle2_right`: a wheel. */
export const isWheel = (channel: string): boolean => /^(front|rear|axle\d)_(left|right)$/.test(channel);

/** More steps than this tell no more of their median. */
const ENOUGH_STEPS = 9_000;

/** Median time between two rows, in seconds; of a long recording by steps spread over it. */
export function sampleIntervalS({ timeS }: Pick<Recording, 'timeS'>): number {
	if (timeS.length < 2) return NaN;
	const stride = Math.max(1, Math.floor((timeS.length - 1) / ENOUGH_STEPS));
	const steps = new Float64Array(Math.ceil((timeS.length - 1) / stride));
	for (let n = 0; n < steps.length; n++) {
		const i = n * stride;
		steps[n] = (timeS[i + 1] ?? 0) - (timeS[i] ?? 0);
	}
	return steps.sort()[steps.length >> 1] ?? NaN;
}
