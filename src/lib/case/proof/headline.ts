import { VERDICT_WORDS, type Verdict } from '../../core/prove/proof';
import type { CaseCode } from '../codes/caseCode';

/** Worst first: what a technician must hear before anything else. */
const ORDER: Verdict[] = [
	'back-while-driving',
	'back-at-key-on',
	'new',
	'never-cleared',
	'expected',
	'made-by-us',
	'consequence',
	'test-not-run',
	'quiet-nothing-mended',
	'not-all-shown',
	'not-far-enough',
	'released',
	'proven-clear'
];

const OF_MANY: Partial<Record<Verdict, string>> = { consequence: 'Consequences of another' };

/** How many of the codes stand where, as one sentence: "1 came back at key-on, 2 proven clear". */
export function proofHeadline(codes: CaseCode[]): string {
	const parts = ORDER.flatMap((verdict) => {
		const count = codes.filter((code) => code.proof.verdict === verdict).length;
		if (count === 0) return [];
		const words = (count > 1 && OF_MANY[verdict]) || VERDICT_WORDS[verdict];
		return count === codes.length ? [words] : [`${count} ${words.charAt(0).toLowerCase()}${words.slice(1)}`];
	});
	return parts.join(', ');
}
