import type { LiveNote } from './plausibility';

/** What the analysis of live data can find. */
export const FINDING_TYPES = [
	'stuck-zero',
	'stuck-invalid',
	'dropout',
	'spike',
	'erratic',
	'late-pickup',
	'early-loss',
	'ratio-offset',
	'slip'
] as const;
export type FindingType = (typeof FINDING_TYPES)[number];

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
	/** When each of them began; at most {@link MOST_STARTS}. */
	startsS: number[];
}

export const MOST_STARTS = 500;

/** Several signals that go at the same moment have something in common that went. */
export interface CommonCause {
	channels: string[];
	/** When it began, seconds. */
	timesS: number[];
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
	/** What went at the same moments: no sensor does that alone. */
	common: CommonCause[];
	/** About other signals than wheels, and about the recording itself. */
	notes: LiveNote[];
	/** Whether wheels turned as they do on stands: one by one, or an axle alone and slowly. */
	onStands: boolean;
	/** What the rate cannot show, and what would. */
	rateText: string;
}

/** Something that happened to one wheel for a while; samples `from` to `to`, the last one included. */
export interface LiveEvent {
	from: number;
	to: number;
	value: number;
	/** What the others said at most meanwhile, km/h. */
	othersKmh: number;
}
