/** A capture of an oscilloscope: evenly spaced samples of one or more probes. */
export interface Capture {
	rateHz: number;
	/** Time of the first sample, in seconds of the file or instrument. */
	startS: number;
	channels: CaptureChannel[];
}

export interface CaptureChannel {
	/** `front_left`, or whatever the column or probe was called. */
	name: string;
	/** In volts. */
	volts: Float32Array;
}

export const durationS = ({ rateHz, channels }: Capture): number => (channels[0]?.volts.length ?? 0) / rateHz;
