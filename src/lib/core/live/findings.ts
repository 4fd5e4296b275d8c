/** What the analysis of live data can find, by the contract of `jaldi live`. */
export type FindingType =
	| 'stuck-zero'
	| 'stuck-invalid'
	| 'dropout'
	| 'spike'
	| 'erratic'
	| 'late-pickup'
	| 'early-loss'
	| 'ratio-offset'
	| 'slip';

export interface LiveFinding {
	type: FindingType;
	/** A wheel, an axle (`front`, `rear`) or a side (`left`, `right`). */
	channel: string;
	startS: number;
	endS: number;
	count: number;
	/** Depends on the type: the lowest or highest reading, the pickup speed in km/h, the ratio. */
	value: number;
	/** One plain sentence. */
	text: string;
}

export interface LiveAnalysis {
	rateHz: number;
	durationS: number;
	channels: string[];
	findings: LiveFinding[];
	/** Nothing shorter than this can be seen at this rate. */
	shortestVisibleS: number;
	verdict: string;
	/** All wheels fell at once: times at which that began. No sensor does that. */
	commonDropsS: number[];
}

/** Something that happened to one wheel for a while; samples `from` to `to`, the last one included. */
export interface LiveEvent {
	from: number;
	to: number;
	value: number;
}
