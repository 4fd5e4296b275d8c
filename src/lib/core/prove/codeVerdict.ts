import { decodeStatus, tellsOfFault } from '../codes/status';
import { exposureWords, residualOf, USUAL_TARGET } from './exposure';
import { furtherSeconds, provokedWords } from './provoked';
import type { CodeEvent, CodeProof, MarkState, ProofContext, ProofMark, Shown, Verdict } from './proof';

type EventOf<K extends CodeEvent['kind']> = Extract<CodeEvent, { kind: K }>;
type Read = EventOf<'read'>;

const showsFault = (read: Read): boolean => read.status !== null && tellsOfFault(read.status);

const NOT_TESTED_BIT = 0x10;

/**
 * Whether the module says its test has run since the clear: the code is listed without "not completed since last
 * clear", or not listed at all by a module that lists every code having that bit. Null where it cannot say, as where it was
 * swapped or updated and does not have this code any more.
 */
function testHasRun(read: Read): boolean | null {
	if (isGone(read)) return null;
	if ((read.availabilityMask & NOT_TESTED_BIT) === 0) return null;
	return read.status === null || !decodeStatus(read.status).notTestedSinceClear;
}

const isGone = (read: Read): boolean => read.status === null && read.stillKnown === false;

const HARD: ProofContext = {
	origin: { kind: 'own' },
	exposure: null,
	provoked: [],
	calibrationsDue: null,
	seenLive: false
};

/** One code's whole story → its proof. Events may come in any order. */
export function proveCode(events: readonly CodeEvent[], context: ProofContext = HARD): CodeProof {
	return new Proving(events, context).proof();
}

/** One code while its checklist is gone through, from the first mark to the last. */
class Proving {
	private readonly story: CodeEvent[];
	private readonly marks: CodeProof['marks'] = {};
	private readonly clear: CodeEvent | null;
	private readonly after: CodeEvent[];
	private readonly recorded: Read | null;
	private readonly mended: CodeEvent | null;

	constructor(
		events: readonly CodeEvent[],
		private readonly context: ProofContext
	) {
		this.story = [...events].sort((a, b) => a.at - b.at);
		const clears = this.all('cleared');
		const clear = clears.at(-1) ?? null;
		const until = clear?.at ?? Infinity;
		const first = this.all('read').find(showsFault);
		this.clear = clear;
		this.after = clear ? this.story.filter((event) => event.at > clear.at) : [];
		this.recorded = first && first.at < until ? first : null;
		// A repair after which the code came back has mended nothing: only what was done since its last return counts.
		const clearBefore = clears.at(-2)?.at ?? Infinity;
		const lastReturn = this.all('read').find(
			(read) => showsFault(read) && read.at > clearBefore && read.at < until
		);
		const mendedFrom = lastReturn?.at ?? -Infinity;
		this.mended = this.all('mended').findLast((e) => e.at > mendedFrom && e.at < until) ?? null;
	}

	private all<K extends CodeEvent['kind']>(kind: K, of: readonly CodeEvent[] = this.story): EventOf<K>[] {
		return of.filter((event): event is EventOf<K> => event.kind === kind);
	}

	private show(mark: ProofMark, state: MarkState, words: string, by: CodeEvent | null = null): Shown {
		const word = by && 'word' in by && by.word;
		const shown = { state, at: by?.at ?? null, words: word ? `${words} ${word}` : words };
		this.marks[mark] = shown;
		return shown;
	}

	/** Shown by an event, or waited for. */
	private need(mark: ProofMark, by: CodeEvent | null, shown: string, waits: string): boolean {
		this.show(mark, by ? 'good' : 'open', by ? shown : waits, by);
		return by !== null;
	}

	proof(): CodeProof {
		const { recorded, clear, after, context } = this;
		this.need('recorded', recorded, 'Read and saved before it was cleared.', 'Not recorded before a clear.');
		this.need('mended', this.mended, 'A repair was done.', 'Nothing was mended.');
		this.need('cleared', clear, 'Cleared by us.', 'Not cleared yet.');
		if (!clear) return this.standing();
		const cycle = this.all('key-cycled', after)[0] ?? null;
		this.need('key-cycled', cycle, 'Key off and on since the clear.', 'Cycle the key, then read again.');
		this.lookAtLamps(cycle);
		const reads = this.all('read', after);
		const back = this.lastReturn(reads);
		if (back && this.mayBeFromBefore(back))
			return this.verdict(
				'never-cleared',
				'It was repaired after the last clear, and what is stored may be from before: clear it, then prove it.'
			);
		if (back) return this.returned(back);
		this.lookAtLive();
		this.lookAtProvoked();
		this.lookAtRest();
		const since = cycle ? reads.filter((read) => read.at > cycle.at).at(-1) : undefined;
		const ran = this.lookAtTest(cycle !== null, since);
		if (!cycle) return this.verdict('test-not-run', 'Cycle the key, then read again.');
		if (!since) return this.verdict('test-not-run', 'Read every module again after the key cycle.');
		this.show('stayed-away', 'good', 'Read again after the key cycle: not there.', since);
		if (!ran) return this.verdict('test-not-run', this.marks['test-ran']?.words ?? '');
		if (!this.mended && context.origin.kind !== 'made-by-us')
			return this.verdict(
				'quiet-nothing-mended',
				'It stayed away without a repair: it may come and go. Nothing is proven.'
			);
		if (!this.recorded)
			return this.verdict(
				'not-all-shown',
				'It was not recorded before the clear: of what nobody saw nothing is proven.'
			);
		return this.last();
	}

	/** Where it is there again: since the last repair, where it was read since, else since the clear. */
	private lastReturn(reads: readonly Read[]): Read | undefined {
		const mendedAt = this.all('mended', this.after).at(-1)?.at ?? -Infinity;
		return reads.find((read) => read.at > mendedAt && showsFault(read)) ?? reads.find(showsFault);
	}

	/**
	 * Times decide: after a repair that no clear followed, only what has failed in a key cycle that began after it is surely no
	 * older.
	 */
	private mayBeFromBefore({ at, status }: Read): boolean {
		const mended = this.all('mended', this.after).findLast((repair) => repair.at < at);
		if (!mended || status === null) return false;
		const cycled = this.all('key-cycled', this.after).some((key) => key.at > mended.at && key.at < at);
		const { testFailed, notTestedThisCycle } = decodeStatus(status);
		return !cycled || !testFailed || notTestedThisCycle;
	}

	private verdict(verdict: Verdict, because: string): CodeProof {
		const unknown = verdict === 'not-far-enough' && this.context.exposure?.before === null;
		return { verdict, marks: this.marks, because, asksReturns: unknown };
	}

	/** Nothing was cleared: what the code is by its origin. */
	private standing(): CodeProof {
		const { origin } = this.context;
		if (!this.recorded) return this.verdict('never-cleared', 'It has not been recorded.');
		switch (origin.kind) {
			case 'made-by-us':
				return this.verdict('made-by-us', 'Our own test set it: clear it once the test is over.');
			case 'expected':
				return this.verdict('expected', `Expected: ${origin.because}. It is proven gone like any other.`);
			case 'consequence':
				return this.verdict('consequence', `It follows from something else: ${origin.because}.`);
			case 'own':
				return this.verdict('never-cleared', 'It is recorded; clear it once the repair is done.');
		}
	}

	private lookAtLamps(cycle: CodeEvent | null): void {
		const from = cycle ?? this.clear;
		const watched = this.all('lamps', this.after)
			.filter(({ at }) => from === null || at > from.at)
			.at(-1);
		if (watched?.bad) this.show('lamps', 'bad', watched.bad, watched);
		else
			this.need(
				'lamps',
				watched ?? null,
				'Lit at key-on and went out.',
				'Watch the lamps at key-on, after the key cycle.'
			);
	}

	private returned(back: Read): CodeProof {
		this.show('test-ran', 'good', 'Its test ran: it found the fault.', back);
		this.show('stayed-away', 'bad', 'It is there again.', back);
		if (this.mended) this.show('mended', 'suspect', 'A repair was done, and it came back.', this.mended);
		if (!this.recorded) return this.verdict('new', 'It was not there before the clear.');
		const { origin } = this.context;
		if (origin.kind === 'expected' && (this.context.calibrationsDue ?? 0) > 0)
			return this.verdict('expected', `Expected: ${origin.because}. It stays until that module is taught.`);
		if (origin.kind === 'consequence' && origin.now)
			return this.verdict('consequence', `It is there again with what it follows from: ${origin.because}.`);
		const moved =
			back.snapshotKmh !== null
				? back.snapshotKmh > 0
				: this.all('driven', this.after).some((e) => e.at < back.at);
		return moved
			? this.verdict('back-while-driving', 'It is there again, set while the vehicle moved.')
			: this.verdict(
					'back-at-key-on',
					'It is there again and the vehicle has not moved: it fails at rest, and at rest it can be found.'
				);
	}

	/** By the module's own word; where it has none, by a drive that met what the test needs. */
	private lookAtTest(cycled: boolean, read: Read | undefined): boolean {
		const ran = read ? testHasRun(read) : null;
		const drive = this.all('conditions', this.after)
			.filter(({ metS }) => metS > 0)
			.at(-1);
		if (ran) {
			this.show(
				'test-ran',
				'good',
				read?.word ? 'It has run since the clear.' : 'The module says: completed since the clear.',
				read
			);
			return true;
		}
		if (this.waived('test-ran')) return true;
		if (ran === null && read && drive) {
			const { metS } = drive;
			this.show(
				'test-ran',
				'good',
				`The module ${isGone(read) ? 'does not have this code any more' : 'cannot say'}; a recorded drive met its conditions for ${metS.toFixed(0)} s.`,
				drive
			);
			return true;
		}
		const waits =
			ran === false
				? 'The module says: not completed since the clear. Drive it, then read again.'
				: cycled && read && isGone(read)
					? 'This module does not have this code any more: it was replaced or updated, and that is no proof. Show its function by a recorded drive that meets its conditions.'
					: cycled && read
						? 'This module cannot say whether its test has run: record a drive that meets its conditions.'
						: 'Not known before it is read again.';
		this.show('test-ran', 'open', waits);
		return false;
	}

	private lookAtLive(): void {
		const last = this.all('live', this.after).at(-1);
		if (!last && !this.context.seenLive) return;
		if (last?.found) this.show('live-clean', 'bad', last.found, last);
		else
			this.need(
				'live-clean',
				last ?? null,
				'Live data since the repair are clean.',
				'It was seen in live data before: record it again.'
			);
	}

	/** What made it show, done again: what it was and how long it took is the measure of it. */
	private lookAtProvoked(): void {
		const { provoked, exposure } = this.context;
		const words = provokedWords(provoked, exposure?.target ?? USUAL_TARGET);
		if (words === null || !this.mended) return;
		const back = provoked.some(({ since }) => since.changes > 0);
		const open = furtherSeconds(provoked, exposure?.target ?? USUAL_TARGET) > 0;
		this.show('provoked', back ? 'bad' : open ? 'open' : 'good', words);
	}

	private lookAtRest(): void {
		const { calibrationsDue, exposure } = this.context;
		if (calibrationsDue !== null)
			this.show(
				'calibrated',
				calibrationsDue === 0 ? 'good' : 'open',
				calibrationsDue === 0
					? 'All that the work calls for was told and taught.'
					: `${calibrationsDue === 1 ? 'One calibration is' : `${calibrationsDue} calibrations are`} due.`
			);
		if (!exposure) return;
		const residual = residualOf(exposure);
		this.show('exposure', residual && residual.furtherKm === 0 ? 'good' : 'open', exposureWords(exposure));
	}

	/** A lead has let this go, by name. */
	private waived(mark: ProofMark): boolean {
		const waiver = this.all('waived', this.after)
			.filter((one) => one.mark === mark)
			.at(-1);
		if (!waiver) return false;
		this.show(mark, 'suspect', waiver.words, waiver);
		return true;
	}

	/** All that stands between a code that stayed away and its proof. */
	private last(): CodeProof {
		for (const mark of ['lamps', 'live-clean', 'provoked', 'exposure'] as const) {
			const shown = this.marks[mark];
			if (shown && shown.state !== 'good') this.waived(mark);
		}
		const missing = (['provoked', 'live-clean', 'lamps', 'calibrated'] as const)
			.map((mark) => this.marks[mark])
			.find((shown) => shown?.state === 'open' || shown?.state === 'bad');
		if (missing) return this.verdict('not-all-shown', missing.words);
		const { exposure } = this.marks;
		if (exposure?.state === 'open') return this.verdict('not-far-enough', exposure.words);
		const letGo = Object.values(this.marks).filter(({ state }) => state === 'suspect');
		if (letGo.length > 0) return this.verdict('released', letGo.map(({ words }) => words).join(' '));
		return this.verdict('proven-clear', 'Its test has run since the clear and it stayed away.');
	}
}
