import { decodeStatus, tellsOfFault } from '../codes/status';

/**
 * Whether a code is proven clear (domain 2.6, from module status bits). A chain of six marks; the verdict is what the
 * first broken mark says. Times are any monotonic number, the same for all events of one case.
 */
export type Verdict =
	| 'never-cleared'
	| 'quiet-nothing-mended'
	| 'test-not-run'
	| 'back-at-key-on'
	| 'back-while-driving'
	| 'new'
	| 'proven-clear';

export const VERDICT_WORDS: Record<Verdict, string> = {
	'never-cleared': 'Never cleared',
	'quiet-nothing-mended': 'Quiet, but nothing was mended',
	'test-not-run': 'Cleared, but its test has not run',
	'back-at-key-on': 'Came back at key-on',
	'back-while-driving': 'Came back while driving',
	new: 'New',
	'proven-clear': 'Proven clear'
};

export type CodeEvent =
	/** A scan reached the module. `status` is the code's byte, or null when the module did not list it. */
	| {
			at: number;
			kind: 'read';
			status: number | null;
			/** Which bits the module can tell. */
			availabilityMask: number;
			/** Vehicle speed in the latest snapshot, when there is one. */
			snapshotKmh: number | null;
	  }
	| { at: number; kind: 'mended' }
	| { at: number; kind: 'cleared' }
	| { at: number; kind: 'key-cycled' }
	| { at: number; kind: 'driven' };

export const PROOF_MARKS = [
	'recorded',
	'mended',
	'cleared',
	'key-cycled',
	'test-ran',
	'stayed-away'
] as const;
export type ProofMark = (typeof PROOF_MARKS)[number];
export type MarkState = 'good' | 'open' | 'suspect' | 'bad';

export interface CodeProof {
	verdict: Verdict;
	marks: Record<ProofMark, MarkState>;
	/** Why the verdict stands, or what it waits for: one plain sentence. */
	because: string;
}

type Read = Extract<CodeEvent, { kind: 'read' }>;

const showsFault = (read: Read): boolean => read.status !== null && tellsOfFault(read.status);

const NOT_TESTED_BIT = 0x10;

/**
 * Whether the module says its test has run since the clear: the code is listed without "not completed since last
 * clear", or not listed at all by a module that lists every code having that bit. Null where it cannot say.
 */
function testHasRun(read: Read): boolean | null {
	if ((read.availabilityMask & NOT_TESTED_BIT) === 0) return null;
	return read.status === null || !decodeStatus(read.status).notTestedSinceClear;
}

/** One code's whole story → its proof. Events may come in any order. */
export function proveCode(events: CodeEvent[]): CodeProof {
	const story = [...events].sort((a, b) => a.at - b.at);
	const reads = story.filter((event): event is Read => event.kind === 'read');
	const firstSeen = reads.find(showsFault);
	const clears = story.filter((event) => event.kind === 'cleared');
	const clear = clears.at(-1);

	const until = clear?.at ?? Infinity;
	const recorded = firstSeen !== undefined && firstSeen.at < until;
	// A repair after which the code came back has mended nothing: only what was done since its last return counts.
	const clearBefore = clears.at(-2)?.at ?? Infinity;
	const lastReturn = reads.find((read) => showsFault(read) && read.at > clearBefore && read.at < until);
	const mendedFrom = lastReturn?.at ?? -Infinity;
	const mended = story.some((e) => e.kind === 'mended' && e.at > mendedFrom && e.at < until);
	const marks: Record<ProofMark, MarkState> = {
		recorded: recorded ? 'good' : 'open',
		mended: mended ? 'good' : 'open',
		cleared: 'open',
		'key-cycled': 'open',
		'test-ran': 'open',
		'stayed-away': 'open'
	};
	const verdict = (name: Verdict, because: string): CodeProof => ({ verdict: name, marks, because });

	if (!clear) {
		return verdict(
			'never-cleared',
			recorded ? 'It is recorded; clear it once the repair is done.' : 'It has not been recorded.'
		);
	}
	marks.cleared = 'good';
	const after = story.filter((event) => event.at > clear.at);
	const cycle = after.find((event) => event.kind === 'key-cycled');
	if (cycle) marks['key-cycled'] = 'good';
	const readsAfter = after.filter((event): event is Read => event.kind === 'read');

	const back = readsAfter.find(showsFault);
	if (back) {
		marks['stayed-away'] = 'bad';
		marks['test-ran'] = 'good';
		if (mended) marks.mended = 'suspect';
		if (!recorded) return verdict('new', 'It was not there before the clear.');
		const moved =
			back.snapshotKmh !== null
				? back.snapshotKmh > 0
				: after.some((e) => e.kind === 'driven' && e.at < back.at);
		return moved
			? verdict('back-while-driving', 'It is there again, set while the vehicle moved.')
			: verdict(
					'back-at-key-on',
					'It is there again and the vehicle has not moved: look for an electrical fault in its circuit.'
				);
	}

	const lastRead = readsAfter.at(-1);
	if (!cycle) return verdict('test-not-run', 'Cycle the key, then read again.');
	if (!lastRead || lastRead.at < cycle.at)
		return verdict('test-not-run', 'Read every module again after the key cycle.');
	const ran = testHasRun(lastRead);
	if (ran === null) return verdict('test-not-run', 'This module cannot say whether its test has run.');
	if (!ran) {
		return verdict(
			'test-not-run',
			'The module says: not completed since the clear. Drive it, then read again.'
		);
	}
	marks['test-ran'] = 'good';
	marks['stayed-away'] = 'good';
	if (!mended) {
		return verdict(
			'quiet-nothing-mended',
			'It stayed away without a repair: it may come and go. Nothing is proven.'
		);
	}
	return verdict('proven-clear', 'Its test has run since the clear and it stayed away.');
}
