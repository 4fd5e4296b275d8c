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

/** Median time between two rows, in seconds. */
export function sampleIntervalS({ timeS }: Recording): number {
	if (timeS.length < 2) return NaN;
	const steps = new Float64Array(timeS.length - 1);
	for (let i = 0; i < steps.length; i++) steps[i] = (timeS[i + 1] ?? 0) - (timeS[i] ?? 0);
	return steps.sort()[steps.length >> 1] ?? NaN;
}
