import { codeNumber, suffixOf } from '../../core/codes/codeId';
import { testConditionsOf } from '../../../../library/codes';
import { sayCondition } from '../../../../library/signals';
import type { CaseCode } from '../codes/caseCode';
import type { CaseFacts } from '../codes/caseFacts';
import { mayClear } from '../codes/mayClear';
import { networkFindings } from '../codes/networkFindings';
import { openWords } from '../codes/openReason';
import type { Entry } from '../entries/entry';
import { isMending } from '../mend/calibrations';
import { proofSteps } from '../proof/proofSteps';
import { happenedAfter } from '../thread/thread';
import { makerOf, typeOf } from '../thread/vehicleOf';
import type { MarkState } from '../../core/prove/proof';
import { seeking, step, type NextStep } from './step';

export const lastMending = (entries: readonly Entry[]): Entry | null =>
	entries.filter(isMending).at(-1) ?? null;

/** What must happen on the road before a code's test completes, where a source says so. */
export function testNeeds(
	dtc: string,
	{ entries, book }: Pick<CaseFacts, 'entries' | 'book'>
): string | null {
	const condition = testConditionsOf(book, {
		code: codeNumber(dtc),
		failureType: suffixOf(dtc),
		maker: makerOf(entries)
	});
	return condition && sayCondition(condition);
}

const unrun = (codes: CaseCode[]) => codes.filter((code) => code.proof.verdict === 'test-not-run');
/** Codes by their texts, each once. */
export const listed = (codes: CaseCode[]) => [...new Set(codes.map((code) => code.text))].join(', ');

/** A module that does not answer is a finding of its own, with or without codes. */
function silenceStep({ entries, lastCompleteScan, book }: CaseFacts): NextStep | null {
	const silent = lastCompleteScan?.payload.modules.filter((module) => !module.answered) ?? [];
	if (!lastCompleteScan || silent.length === 0) return null;
	const names = silent.map((module) => module.name.toLowerCase()).join(' and ');
	const mended = lastMending(entries);
	if (mended && happenedAfter(entries, mended, lastCompleteScan)) {
		return step(
			'read',
			'Scan again',
			`Whether the ${names} answers now shows only in a new reading.`,
			'scan'
		);
	}
	const [finding] = networkFindings(lastCompleteScan.payload, typeOf(entries), book);
	if (finding)
		return step('read', finding.title, `${finding.todo} Then write the repair down on Mend.`, 'network');
	return step(
		'mend',
		`Find out why the ${names} ${silent.length === 1 ? 'is' : 'are'} silent`,
		silent.length === 1
			? 'Look at its power, its ground and its branch of the bus; at a restraint module its maker’s procedure alone.'
			: 'Look at what they share: fuse, ground, splice, bus.',
		'repair'
	);
}

const isAsked = (state: MarkState | undefined): boolean => state === 'open' || state === 'bad';

/** Away, and its test has run: what still stands between a code and its proof. */
function restStep(codes: readonly CaseCode[]): NextStep | null {
	const short = codes.find(({ proof }) => proof.verdict === 'not-far-enough');
	if (short) {
		const { because, asksReturns } = short.proof;
		return asksReturns
			? step('prove', `Say how often ${short.text} came before`, because, null)
			: { ...step('prove', `Drive on, for ${short.text}`, because), page: 'drive' };
	}
	const untried = codes.find(
		({ proof }) => proof.verdict === 'not-all-shown' && isAsked(proof.marks.provoked?.state)
	);
	if (untried?.proof.marks.provoked)
		return untried.proof.marks.provoked.state === 'bad'
			? seeking('mend', `Look again: ${untried.text} still shows`, untried.proof.because, 'repair')
			: {
					...step('measure', 'Do the same again as before the repair', untried.proof.because),
					page: 'provoke'
				};
	const unseen = codes.find(
		({ proof }) => proof.verdict === 'not-all-shown' && proof.marks['live-clean']?.state === 'open'
	);
	return unseen ? step('watch', 'Record live data once more', unseen.proof.because, null) : null;
}

/** The order of proving: clear, key, lamps, read, drive, read. */
export function proofStep(facts: CaseFacts): NextStep | null {
	const { entries, codes, lastClear, lastCompleteScan, lastScan, open } = facts;
	if (codes.length === 0) return silenceStep(facts);
	const mended = lastMending(entries);
	if (!lastClear || (mended && happenedAfter(entries, mended, lastClear) && open.length > 0)) {
		const refused = mayClear(facts, null);
		return refused.ok
			? step('prove', 'Clear the codes', 'They are recorded and the repair is written down.', 'clear')
			: step('prove', 'Read every module again', refused.error, 'read');
	}
	const { key: cycled, lamps: lampCheck, drive } = proofSteps(facts);
	if (!cycled)
		return step(
			'prove',
			'Turn the key off, wait, and on again',
			'A code that is gone before a key cycle has proven nothing.',
			'key'
		);
	if (!lampCheck)
		return step(
			'prove',
			'Watch the lamps at key-on',
			'Each must light for two or three seconds and go out.',
			'lamps'
		);
	if (!lastCompleteScan || !happenedAfter(entries, lastCompleteScan, cycled)) {
		return step(
			'prove',
			'Read every module again',
			'Only a full reading after the key cycle shows that nothing came back.',
			'read'
		);
	}
	const waiting = unrun(codes);
	if (waiting.length > 0) {
		if (drive && lastScan && happenedAfter(entries, drive, lastScan)) {
			return step(
				'prove',
				'Read every module again',
				'The drive is done: now the modules can say whether their tests have run.',
				'read'
			);
		}
		const needs = [...new Set(waiting.map((code) => testNeeds(code.dtc, facts)).filter((n) => n !== null))];
		return step(
			'prove',
			'Drive it',
			needs.length > 0
				? `Its test needs ${needs.join('; and ')}.`
				: `The test of ${listed(waiting)} has not run since the clear.`,
			'drive'
		);
	}
	const rest = restStep(codes);
	if (rest) return rest;
	const silent = silenceStep(facts);
	if (silent) return silent;
	const [first] = open;
	return first ? step('hand-over', 'Look at what is still open', openWords(first), 'open') : null;
}
