/** Live data as columns over one clock. */
export interface Recording {
	/** Rising, in seconds from the first row. */
	timeS: Float64Array;
	/** By name (`front_left`, `vehicle`, `steering` …) in the order of the file; NaN where nothing was read. */
	channels: Map<string, Float64Array>;
	/** Rows that were left out, and why. */
	problems: { line: number; reason: string }[];
}

/** `front_left`, `axle2_right`, `rear_wheel`: a wheel. */
export const isWheel = (channel: string): boolean =>
	/^(?:(?:front|rear|axle\d)_(?:left|right)|(?:front|rear)_wheel)$/.test(channel);

/** A wheel, or the vehicle's own speed. */
export const isSpeed = (channel: string): boolean => isWheel(channel) || channel === 'vehicle';

/** What buses say for "not available", in km/h after scaling: all bits of one byte, of nine, fifteen or sixteen at 0.01. */
const NOT_AVAILABLE_KMH = [255, 255.99, 327.67, 327.68, 511, 511.5, 511.875, 655.34, 655.35, 4095, 6553.5];
const NOT_AVAILABLE_SLACK_KMH = 0.006;
/** From here on a reading is no speed of a road vehicle, whatever it is. */
const NO_SPEED_FROM_KMH = 330;

/** Whether a speed is a module's word for having none. */
export function isNotAvailable(kmh: number): boolean {
	if (kmh < 255) return false;
	if (kmh >= NO_SPEED_FROM_KMH) return true;
	return NOT_AVAILABLE_KMH.some((word) => Math.abs(kmh - word) < NOT_AVAILABLE_SLACK_KMH);
}

/** The same of any channel: a pressure of 655 kPa is a pressure. */
export const tellsNothing = (channel: string, value: number): boolean =>
	Number.isNaN(value) || (isSpeed(channel) && isNotAvailable(value));

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
