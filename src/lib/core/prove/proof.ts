import type { Exposure } from './exposure';
import type { Provoked } from './provoked';

/** What a proof is made of. Moments are any monotonic number, the same for all events of one case. */
export type Verdict =
	| 'never-cleared'
	| 'expected'
	| 'made-by-us'
	| 'consequence'
	| 'quiet-nothing-mended'
	| 'test-not-run'
	| 'back-at-key-on'
	| 'back-while-driving'
	| 'new'
	| 'not-all-shown'
	| 'not-far-enough'
	| 'released'
	| 'proven-clear';

export const VERDICT_WORDS: Record<Verdict, string> = {
	'never-cleared': 'Never cleared',
	expected: 'Expected after replacement',
	'made-by-us': 'Made by us',
	consequence: 'Consequence of another',
	'quiet-nothing-mended': 'Quiet, but nothing was mended',
	'test-not-run': 'Cleared, but its test has not run',
	'back-at-key-on': 'Came back at key-on',
	'back-while-driving': 'Came back while driving',
	new: 'New',
	'not-all-shown': 'Quiet, but not all is shown',
	'not-far-enough': 'Quiet, but not driven far enough',
	released: 'Released by a lead, not proven',
	'proven-clear': 'Proven clear'
};

/** Whether a code came back after a repair. */
export const isReturned = (verdict: Verdict): boolean =>
	verdict === 'back-at-key-on' || verdict === 'back-while-driving';

/** Those after which nothing more is asked of a code. */
export const isSettled = (verdict: Verdict): boolean => verdict === 'proven-clear' || verdict === 'released';

/** How a code came to be there, besides by a fault of its own. */
export type Origin =
	| { kind: 'own' }
	| { kind: 'made-by-us' }
	/** The repair after which a module says so until it is taught. */
	| { kind: 'expected'; because: string }
	/** What it follows from, and whether that was there when it was read last. */
	| { kind: 'consequence'; because: string; now: boolean };

/** `word`: on whose word it stands, in a sentence, where our own link did not do it. */
export type CodeEvent =
	/** A scan reached the module. `status` is the code's byte, or null when the module did not list it. */
	| {
			at: number;
			kind: 'read';
			status: number | null;
			/** Which bits the module can tell. */
			availabilityMask: number;
			/** Of a code that is not listed: whether the module still has it at all; null where it cannot be told. */
			stillKnown?: boolean | null;
			/** Vehicle speed in the latest snapshot, when there is one. */
			snapshotKmh: number | null;
			word?: string | undefined;
	  }
	| { at: number; kind: 'mended' }
	| { at: number; kind: 'cleared'; word?: string | undefined }
	| { at: number; kind: 'key-cycled'; word?: string | undefined }
	| { at: number; kind: 'driven' }
	/** Lamps were watched at key-on. `bad` names what one of them did that it must not; null = all lit and went out. */
	| { at: number; kind: 'lamps'; bad: string | null }
	/** A recorded drive met what its test needs, for so many seconds; 0 = it did not. */
	| { at: number; kind: 'conditions'; metS: number }
	/** Live data of its wheel or module, and what was found in them; null = clean. */
	| { at: number; kind: 'live'; found: string | null }
	/** A lead lets one thing go, by name. */
	| { at: number; kind: 'waived'; mark: ProofMark; words: string };

export const PROOF_MARKS = [
	'recorded',
	'mended',
	'cleared',
	'key-cycled',
	'lamps',
	'test-ran',
	'stayed-away',
	'live-clean',
	'provoked',
	'calibrated',
	'exposure'
] as const;
export type ProofMark = (typeof PROOF_MARKS)[number];
export type MarkState = 'good' | 'open' | 'suspect' | 'bad';

/** What a lead may let go. The rest is not proof without it. */
export const WAIVABLE = [
	'lamps',
	'test-ran',
	'live-clean',
	'provoked',
	'exposure'
] as const satisfies ProofMark[];

/** One line of the checklist. */
export interface Shown {
	state: MarkState;
	/** The event that shows it; null while nothing does. */
	at: number | null;
	/** What shows it, or what it waits for. */
	words: string;
}

export interface CodeProof {
	verdict: Verdict;
	/** In the order of {@link PROOF_MARKS}; a mark that is not asked of this code is left out. */
	marks: Partial<Record<ProofMark, Shown>>;
	/** Why the verdict stands, or what it waits for: one plain sentence. */
	because: string;
	/** Whether it waits for somebody to say how often the fault came. */
	asksReturns: boolean;
}

/** What is known of a code beside what happened to it. */
export interface ProofContext {
	origin: Origin;
	/** Null for a fault that is there whenever it is looked for. */
	exposure: Exposure | null;
	/** What made it show before the repair, each with the same done again since. */
	provoked: readonly Provoked[];
	/** Calibrations that the case still calls for; null where it never called for any. */
	calibrationsDue: number | null;
	/** It was seen in live data before, so it must be seen clean in them after. */
	seenLive: boolean;
}
