import type { Reasoning } from '../src/lib/case/reason/reasoning';
import { cascadeOf } from '../src/lib/case/reason/cascade';
import { codeKey } from '../src/lib/core/codes/codeKey';
import { isMending, openCalibrations } from '../src/lib/case/mend/calibrations';
import type { CaseView } from '../src/lib/case/progress/project';
import { standingItems } from '../src/lib/case/progress/standingItems';

/** From here on a page says that nothing is wrong any more, or that a repair is sure. */
const SURE = 0.9;
const UNLIKELY = 0.1;

/** What one page of a case advises and another excludes, in words; empty where all agree. @param reasoning where it was asked */
export function disagreements(view: CaseView, reasoning: Reasoning | null): string[] {
	const { next, entries, signature, proven } = view;
	if (signature) return next ? ['a closed case has something to do'] : [];
	if (!next) return ['nothing is said to do'];
	const said: string[] = [];
	if (proven && standingItems(entries).length === 0 && next.anchor !== 'sign' && next.station !== 'listen')
		said.push(`all is proven and nothing stands, and the next step is ${next.title}`);
	if (next.station === 'prove' && next.anchor === 'drive' && openCalibrations(entries).length > 0)
		said.push('a drive comes before what is due to be taught');
	return reasoning ? [...said, ...withReasoning(view, reasoning)] : said;
}

function withReasoning(view: CaseView, { belief, decision, model }: Reasoning): string[] {
	const said: string[] = [];
	const { next, codes, lastScan } = view;
	const [mend] = decision.mending;
	const repair = mend && model.repairs[mend.repair];
	if (next?.anchor === 'sign' && decision.test === null && mend && belief.nothing < 0.5 && mend.cures > SURE)
		said.push(`a signature is asked for, and Reason says ${repair?.id} at ${mend.cures.toFixed(2)}`);
	if (next?.seeks && lastScan && belief.nothing > SURE)
		said.push(
			`“${next.title}”, and Reason says that nothing is wrong any more (${belief.nothing.toFixed(2)})`
		);
	if (next?.anchor === 'sign' && codes.length > 0 && belief.nothing < UNLIKELY)
		said.push(`a signature is asked for, and Reason holds it for all but sure that something is wrong`);
	if (
		view.entries.some(isMending) &&
		openCalibrations(view.entries).length > 0 &&
		decision.test?.test.id.startsWith('road@')
	)
		said.push('a road test is advised before what is due is taught');
	const last = view.entries.filter(isMending).at(-1);
	const since = last ? view.entries.slice(view.entries.indexOf(last) + 1) : [];
	if (
		last?.kind === 'repair' &&
		decision.test === null &&
		belief.nothing < 0.5 &&
		repair?.kind === last.payload.does?.kind &&
		repair?.place === last.payload.does?.place &&
		!since.some(({ kind }) => kind === 'network-scan' || kind === 'test-step')
	)
		said.push(`${repair?.id} is advised right after it was done`);
	if (lastScan) {
		const follows = new Set(
			cascadeOf(codes, lastScan, model.type, view.book).consequences.map(({ key }) => key)
		);
		for (const code of codes)
			if (follows.has(codeKey(code)) !== (code.followsFrom !== null || code.madeByUs !== null))
				said.push(`${code.text} in ${code.moduleName} follows on one page and stands for itself on another`);
	}
	return said;
}
