import { codeKey } from '../../core/codes/codeKey';
import { VERDICT_WORDS, type Verdict } from '../../core/prove/proof';
import { caseCodes } from '../codes/caseCodes';
import { line, type EntryLine, type ThreadGroup } from '../entries/kind';
import { featureOf } from '../entries/registry';
import type { Entry } from '../entries/entry';

/** One entry as the thread panel shows it. */
export interface ThreadLine extends Omit<EntryLine, 'shows'> {
	shows: Shown[];
	id: string;
	/** Under which heading it is found; null = only among all. */
	group: ThreadGroup | null;
	time: string;
	author: string;
	seq: number;
	kind: Entry['kind'];
	/** When the server took it. */
	receivedAt: string;
	/** Why this entry replaced an older one. */
	corrects: string | null;
	superseded: boolean;
	/** Whether somebody can say that it should not count. */
	mayBeWithdrawn: boolean;
	hash: string;
}

export const describeEntry = (entry: Entry): EntryLine =>
	entry.kind === 'unknown'
		? line('Not known to this version', entry.payload.kind, entry.payload.why)
		: featureOf(entry.kind).line(entry.payload);

/** A piece of what an entry showed, and whether it proves something good. */
export interface Shown {
	words: string;
	good: boolean;
}

/** Said of a code from the first, before anything was done. */
const AS_IT_CAME: readonly Verdict[] = ['never-cleared', 'expected', 'made-by-us', 'consequence'];

/** What an entry changed in the verdicts: compares the case before and after it. */
export function whatItShowed(threadBefore: Entry[], entry: Entry): Shown[] {
	if (entry.kind === 'unknown' || !featureOf(entry.kind).changesVerdicts) return [];
	const before = new Map(caseCodes(threadBefore).map((c) => [codeKey(c), c.proof.verdict]));
	const changed = new Map<string, Shown>();
	for (const { address, dtc, text, proof } of caseCodes([...threadBefore, entry])) {
		if (AS_IT_CAME.includes(proof.verdict) || before.get(codeKey({ address, dtc })) === proof.verdict)
			continue;
		const words = `${text} ${VERDICT_WORDS[proof.verdict].toLowerCase()}`;
		changed.set(words, { words, good: proof.verdict === 'proven-clear' });
	}
	return [...changed.values()];
}
