import { shippedBook, type CodeBook } from '../../../../library/codes';
import { caseNumbering } from '../codes/caseNumbering';
import { caseCodes } from '../codes/caseCodes';
import { isSettled, VERDICT_WORDS, type CodeProof, type Verdict } from '../../core/prove/proof';
import type { Entry } from '../entries/entry';
import { openCalibrations, whyDue } from '../mend/calibrations';
import { inTheWayNow } from '../thread/inTheWay';
import type { OpenReason } from '../codes/openReason';
import { lampOpen, lampHistory } from '../codes/lampTold';
import { fittingLacks } from '../entries/fitting/lacks';
import { lastFittings, unexplainedFuses } from '../mend/fittings';
import type { NextStep } from './step';
import { nextStep } from './nextStep';
import { stationLine, type StationState } from './stations';
import type { CaseFacts } from '../codes/caseFacts';
import { happenedAfter, latest, ofKind, standing } from '../thread/thread';

/** All that a thread says, computed in one go. */
export interface CaseView extends CaseFacts {
	stations: StationState[];
	next: NextStep | null;
	proven: boolean;
	/** The verdict of the case in one sentence. */
	verdict: string;
	/** Whether something of it was let go by name instead of proven. */
	released: boolean;
}

/** A thread (in any order) → what it says. @param ofAll where the words for its codes come from */
export function projectCase(thread: Entry[], ofAll: CodeBook = shippedBook): CaseView {
	const entries = standing(thread);
	const numbering = caseNumbering(entries, ofAll);
	const { book } = numbering;
	const codes = caseCodes(thread, book);
	const scans = ofKind(entries, 'network-scan');
	const base: CaseFacts = {
		entries,
		book,
		codes,
		numberingOpen: numbering.open,
		lastScan: scans.at(-1) ?? null,
		lastCompleteScan: scans.filter((scan) => scan.payload.outcome === 'complete').at(-1) ?? null,
		lastClear: latest(entries, 'codes-cleared'),
		signature: latest(entries, 'signature'),
		open: []
	};
	const facts: CaseFacts = { ...base, open: whatIsOpen(base) };
	const proven = facts.open.length === 0;
	return {
		...facts,
		stations: stationLine(facts),
		next: nextStep(facts),
		proven,
		verdict: verdictOf(facts),
		released: codes.some(isReleased) || ofKind(entries, 'release').length > 0
	};
}

/** Reasons why the case may not be signed. */
function whatIsOpen(facts: CaseFacts): OpenReason[] {
	const { entries, codes, lastCompleteScan, lastClear } = facts;
	if (lampHistory(entries)) return [...lampOpen(entries), ...untaught(facts), ...illFitted(facts)];
	const open: OpenReason[] = [];
	if (!lastCompleteScan) open.push({ reason: 'no-complete-scan' });
	const unsettled = codes.filter(({ proof }) => !isSettled(proof.verdict));
	const reasons = (some: CaseFacts['codes']) =>
		some.map(({ text, moduleName, proof }): OpenReason => ({
			reason: 'code',
			text,
			moduleName,
			verdict: proof.verdict
		}));
	// What stands between a code and its proof for the whole case is said once, below.
	open.push(...reasons(unsettled.filter(({ proof }) => !isSaidOfCase(proof))));
	if (codes.length === 0) return [...open, ...silentNow(facts), ...untaught(facts), ...illFitted(facts)];
	if (lastClear && unsettled.length > 0) {
		const check = latest(entries, 'lamp-check');
		if (!check || !happenedAfter(entries, check, lastClear)) {
			open.push({ reason: 'lamps-not-watched' });
		} else {
			for (const { lamp, result } of check.payload.lamps) {
				if (result !== 'lit and went out') open.push({ reason: 'lamp-stays', lamp, result });
			}
		}
	}
	if (lastClear && lastCompleteScan && !happenedAfter(entries, lastCompleteScan, lastClear))
		open.push({ reason: 'not-read-since-clear' });
	open.push(...silentNow(facts), ...untaught(facts), ...illFitted(facts));
	// Nothing is signed while a code is open, whoever was to say so.
	return open.length > 0 ? open : reasons(unsettled);
}

/** Lamps and calibrations are the same for every code: they are said once. */
const isSaidOfCase = ({ verdict, marks }: CodeProof): boolean =>
	verdict === 'not-all-shown' &&
	marks['live-clean']?.state !== 'open' &&
	marks['live-clean']?.state !== 'bad';

function stillInTheWay(entries: readonly Entry[]): OpenReason[] {
	const { places } = inTheWayNow(entries);
	return places.size > 0 ? [{ reason: 'ours-in-the-way', wheels: [...places] }] : [];
}

/** What of ours is not taken off again, what a sheet shows to be not right, and a fuse that was renewed without its cause. */
const illFitted = ({ entries }: CaseFacts): OpenReason[] => [
	...stillInTheWay(entries),
	...lastFittings(entries).flatMap(({ payload }) =>
		fittingLacks(payload).map((lack): OpenReason => ({ reason: 'ill-fitted', sheet: payload.name, lack }))
	),
	...unexplainedFuses(entries).map((fuse): OpenReason => ({ reason: 'fuse-unexplained', fuse }))
];

/** What work calls for and nobody has done or waived. */
const untaught = ({ entries }: CaseFacts): OpenReason[] =>
	openCalibrations(entries).map((one) => ({
		reason: 'calibration-due',
		calibration: one.placed.calibration.name,
		moduleName: one.placed.module.name,
		because: whyDue(one)
	}));

/** Modules that do not answer, each a finding of its own. */
const silentNow = ({ lastCompleteScan }: CaseFacts): OpenReason[] =>
	(lastCompleteScan?.payload.modules ?? [])
		.filter((module) => !module.answered)
		.map((module) => ({ reason: 'silent', moduleName: module.name }));

/** The verdict of a case that a lead closed with things open. */
export const CLOSED_UNPROVEN = 'Closed unproven, by a lead';

function verdictOf({ entries, codes, open, lastScan, signature }: CaseFacts): string {
	if (signature?.payload.outcome === 'unproven') return CLOSED_UNPROVEN;
	const story = lampHistory(entries);
	if (story?.read) {
		if (open.length > 0) return 'Not proven yet';
		return story.codes.length > 0 ? 'Proven by its lamp' : 'Its lamp tells of no fault';
	}
	if (!lastScan) return 'Not read yet';
	if (open.length === 0) return settledWords(codes);
	const worst = (
		[
			'back-while-driving',
			'back-at-key-on',
			'new',
			'test-not-run',
			'quiet-nothing-mended',
			'not-far-enough',
			'not-all-shown',
			'never-cleared'
		] satisfies Verdict[]
	).find((verdict) => codes.some((code) => code.proof.verdict === verdict));
	return worst ? VERDICT_WORDS[worst] : 'Not proven yet';
}

const isReleased = ({ proof }: CaseFacts['codes'][number]): boolean => proof.verdict === 'released';

function settledWords(codes: CaseFacts['codes']): string {
	if (codes.length === 0) return 'No codes in any module';
	return codes.some(isReleased) ? 'Released by a lead, not all of it proven' : 'Proven clear';
}
