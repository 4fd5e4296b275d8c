import type { SignalKind } from './levels';
import type { RingMap } from './ringMap';

/** What the analysis of a capture can find. */
export const SCOPE_FINDING_TYPES = [
	'flat',
	'missing-tooth',
	'dropout',
	'spike',
	'run-out',
	'low-amplitude',
	'noise'
] as const;
export type ScopeFindingType = (typeof SCOPE_FINDING_TYPES)[number];

export interface ScopeFinding {
	type: ScopeFindingType;
	/** Whether it comes again each turn of the ring. */
	perRev: boolean;
	/** When each of them begins, in seconds of the file; at most {@link MOST_TIMES}. */
	times: number[];
	count: number;
	/**
	 * `missing-tooth`, `dropout`: length in tooth periods; `spike`: highest volts; `run-out`: swing of the amplitude (or
	 * of the time from tooth to tooth) against its mean; `low-amplitude`: against the mate, or volts; `noise`: effective
	 * volts; `flat`: the level.
	 */
	value: number;
	/** One plain sentence. */
	text: string;
	/** Teeth of the ring map that it concerns, from 0; empty where it concerns no tooth. */
	teeth: number[];
}
export const MOST_TIMES = 100;

export interface ChannelAnalysis {
	name: string;
	kind: SignalKind;
	lowV: number;
	highV: number;
	/** A level between, as sensors that tell the direction have. */
	middleV: number | null;
	peakToPeakV: number;
	pulses: number;
	/** Of the pulses, from the middle of their periods; null below three pulses. */
	medianHz: number | null;
	minHz: number | null;
	maxHz: number | null;
	/** Share of the time the signal is up. */
	duty: number | null;
	teethPerRev: number | null;
	/** Turns of the ring within the capture; null where the number of teeth is not known. */
	turns: number | null;
	/** Effective noise, in volts. */
	noiseV: number;
	/** Passive: peak-to-peak volts per hertz, by least squares through zero. */
	voltsPerHz: number | null;
	/** Its pulses are shorter than two samples: some are not seen at all, and nothing of them is judged. */
	tooSlow: boolean;
	/** Of a sensor that says more than its teeth; null where it does not, or cannot be read. */
	says: SensorSays | null;
	findings: ScopeFinding[];
	ring: RingMap | null;
}

/** What a sensor says of itself, tooth by tooth or while it stands. */
export interface SensorSays {
	/** By bits after each pulse, or by the pulse's own length. */
	protocol: 'bits' | 'pulse-width';
	/** How many were read, and how many could not be: no code of this kind, or their parity is odd. */
	read: number;
	wrong: number;
	/** Of those, how many say that the field is only just strong enough. */
	weak: number;
	/** Strength of the field, 0 to 7, as half of them say at least; null where it is not told. */
	strength: number | null;
	/** How many say that no tooth passes. */
	standing: number;
	/** Null where it does not say. */
	direction: Direction | null;
}

export interface Direction {
	forwards: number;
	backwards: number;
	/** When it changed, in seconds of the file. */
	changesAt: number[];
}

export interface ScopeAnalysis {
	rateHz: number;
	durationS: number;
	channels: ChannelAnalysis[];
	comparison: Comparison | null;
	verdict: string;
}

/** The channels held against the best of them. */
export interface Comparison {
	reference: string;
	text: string;
	others: {
		name: string;
		/** Pulses a second against the reference's, while both turn. */
		frequencyRatio: number | null;
		/** Swing (active) or volts per hertz (passive) against the reference's. */
		amplitudeRatio: number | null;
		/** Active: how much higher its lower level lies than the reference's. */
		levelDifferenceV: number | null;
		/** The largest difference of one tooth's time against the same tooth of the reference, as a share of a period. */
		largestToothDifference: number | null;
	}[];
}

/** The first times of a list that may be long. */
export const firstTimes = (times: readonly number[]): number[] =>
	times.slice(0, MOST_TIMES).map((time) => Number(time.toFixed(6)));
