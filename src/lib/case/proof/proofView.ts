import { residualOf } from '../../core/prove/exposure';
import {
	PROOF_MARKS,
	VERDICT_WORDS,
	WAIVABLE,
	type MarkState,
	type ProofMark,
	type Verdict
} from '../../core/prove/proof';
import type { CaseCode } from '../codes/caseCode';
import type { Entry } from '../entries/entry';
import { comesOf, type Comes } from './comesAndGoes';

/** A code's proof as the page and the report show it. */
export interface ProofView {
	verdict: Verdict;
	words: string;
	because: string;
	/** Checklist: what is asked of this code, in order. */
	marks: MarkLine[];
	/** For a fault that comes and goes. */
	comes: (Comes & { residual: number | null; furtherKm: number | null }) | null;
	/** What a lead may let go now. */
	waivable: ProofMark[];
}

export interface MarkLine {
	mark: ProofMark;
	name: string;
	state: MarkState;
	words: string;
	/** The entry that shows it. */
	by: { entryId: string; observedAt: string; author: string } | null;
}

export const MARK_NAMES: Record<ProofMark, string> = {
	recorded: 'recorded',
	mended: 'mended',
	cleared: 'cleared',
	'key-cycled': 'key cycled',
	lamps: 'lamps',
	'test-ran': 'its test ran',
	'stayed-away': 'stayed away',
	'live-clean': 'live clean',
	provoked: 'provoked',
	calibrated: 'taught',
	exposure: 'far enough'
};

/** @param entries standing entries in order, as the proof was made from them */
export function proofView(code: CaseCode, entries: readonly Entry[], all: readonly CaseCode[]): ProofView {
	const { verdict, because, marks } = code.proof;
	const exposure = comesOf(entries, code, all);
	const residual = exposure && residualOf(exposure);
	const lines = PROOF_MARKS.flatMap((mark): MarkLine[] => {
		const shown = marks[mark];
		if (!shown) return [];
		const entry = shown.at === null ? undefined : entries[Math.floor(shown.at)];
		return [
			{
				mark,
				name: MARK_NAMES[mark],
				state: shown.state,
				words: shown.words,
				by: entry ? { entryId: entry.id, observedAt: entry.observedAt, author: entry.authorName } : null
			}
		];
	});
	return {
		verdict,
		words: VERDICT_WORDS[verdict],
		because,
		marks: lines,
		comes: exposure && {
			...exposure,
			residual: residual?.chance ?? null,
			furtherKm: residual?.furtherKm ?? null
		},
		waivable: WAITS.includes(verdict)
			? WAIVABLE.filter(
					(mark) => marks[mark] && marks[mark].state !== 'good' && marks[mark].state !== 'suspect'
				)
			: []
	};
}

/** Verdicts of codes that stay away, where only something is not shown. */
const WAITS: readonly Verdict[] = ['test-not-run', 'not-all-shown', 'not-far-enough'];
