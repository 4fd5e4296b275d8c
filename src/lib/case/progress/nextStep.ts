import { openWords } from '../codes/openReason';
import { codeText, failureTypeByte } from '../../core/codes/dtc';
import { testConditionsOf } from '../../../../library/codes';
import { sayCondition } from '../../../../library/signals';
import { isBenchTest } from '../measure/benchTests';
import type { CaseCode } from '../codes/caseCode';
import { makerOf, typeOf } from '../thread/vehicleOf';
import { mayClear } from '../codes/mayClear';
import { suspectCorners } from '../measure/measured';
import { standingItems } from './standingItems';
import { lampHistory } from '../codes/lampTold';
import { networkFindings } from '../codes/networkFindings';
import type { StationId } from './stations';
import type { CaseFacts } from '../codes/caseFacts';
import { isMending, openCalibrations, whyDue } from '../mend/calibrations';
import type { Entry } from '../entries/entry';
import { happenedAfter, latest } from '../thread/thread';
import { lowerFirst, positionWords, upperFirst } from '../words';

/** The one thing to do next, and why. */
export interface NextStep {
	station: StationId;
	title: string;
	why: string;
	/** Place on the station's page to go to. */
	anchor: string | null;
	/** Page of the station, below its own; absent = the station’s first. */
	page?: string;
	/** The fault is still to be found: what tells most is worked out by Reason. */
	seeks?: true;
}

const step = (station: StationId, title: string, why: string, anchor: string | null = null): NextStep => ({
	station,
	title,
	why,
	anchor
});

const seeking = (...of: Parameters<typeof step>): NextStep => ({ ...step(...of), seeks: true });

/** What must happen on the road before a code's test completes, where a source says so. */
export function testNeeds(
	dtc: string,
	{ entries, book }: Pick<CaseFacts, 'entries' | 'book'>
): string | null {
	const condition = testConditionsOf(book, {
		code: codeText(dtc),
		failureType: failureTypeByte(dtc),
		maker: makerOf(entries)
	});
	return condition && sayCondition(condition);
}

const unrun = (codes: CaseCode[]) => codes.filter((code) => code.proof.verdict === 'test-not-run');
const list = (codes: CaseCode[]) => [...new Set(codes.map((code) => code.text))].join(', ');

/** Null once a lead has signed. */
export function nextStep(facts: CaseFacts): NextStep | null {
	const { entries, codes, lastScan, lastCompleteScan, signature } = facts;
	if (signature) return null;
	if (!latest(entries, 'complaint')) {
		return step(
			'listen',
			'Write down what the customer says',
			'The complaint and its conditions decide what to look for.',
			'complaint'
		);
	}
	if (!latest(entries, 'vehicle-checked')) {
		return step(
			'listen',
			'Read the number off the vehicle',
			'Codes belong to one vehicle: its number and odometer tie them to it.',
			'vehicle'
		);
	}
	const lamp = lampStep(facts);
	if (lamp) return lamp;
	if (!lastScan)
		return step('read', 'Scan every module', 'Nothing is cleared before it is recorded.', 'scan');
	if (!lastCompleteScan) {
		return step(
			'read',
			'Scan again',
			`The last scan is partial: ${lowerFirst(lastScan.payload.stoppedBecause ?? 'it stopped early.')}`,
			'scan'
		);
	}
	const mended = lastMending(entries);
	const returned = codes.filter(
		(code) => code.proof.verdict.startsWith('back-') || code.proof.verdict === 'new'
	);
	const lastSeenBack = returned.length > 0 ? lastScan : null;
	if (lastSeenBack && !(mended && happenedAfter(entries, mended, lastSeenBack))) {
		return seeking(
			'mend',
			`Look again: ${list(returned)} came back`,
			returned[0]?.proof.because ?? '',
			'repair'
		);
	}
	const ownFaults = codes.filter(({ madeByUs }) => madeByUs === null);
	if (ownFaults.length > 0 && !mended) {
		const [finding] = networkFindings(lastCompleteScan.payload, typeOf(entries), facts.book);
		const [corner] = suspectCorners(entries, ownFaults);
		if (corner && !entries.some(isBenchTest))
			return seeking(
				'measure',
				`Measure at ${positionWords(corner)}`,
				`${finding ? `${finding.todo} ${finding.title}.` : `${list(ownFaults.slice(0, 3))} recorded.`} A code names a circuit, never a part.`,
				'measure'
			);
		return seeking(
			'mend',
			'Find the fault, then write down the repair',
			finding
				? `${finding.todo} ${finding.title}.`
				: `${list(ownFaults.slice(0, 3))} recorded; nothing has been mended yet.`,
			'repair'
		);
	}
	return (
		calibrationStep(facts) ??
		proofStep(facts) ??
		toSign(
			facts,
			codes.length > 0 ? 'Every code is proven clear.' : 'Every module was read and none has a code.'
		)
	);
}

/** Ready for a lead, where nothing else stands. */
function toSign({ entries }: CaseFacts, why: string): NextStep {
	const [standing] = standingItems(entries);
	return standing
		? step('hand-over', 'Settle what still stands', standing.words, 'open')
		: step('hand-over', 'Ask a lead to sign', why, 'sign');
}

/** A vehicle that nobody can talk to by a link: what its lamp tells leads. */
function lampStep(facts: CaseFacts): NextStep | null {
	const { entries } = facts;
	const story = lampHistory(entries);
	if (!story) return null;
	const { read, codes, told, toldNone, drivenBefore, mended } = story;
	const atLamp = (title: string, why: string): NextStep => ({ ...step('read', title, why), page: 'lamp' });
	if (!read)
		return atLamp('Read its codes by the lamp', 'This vehicle has no link to ask: it counts its codes out.');
	if (codes.length === 0) return toSign(facts, 'Its lamp tells of no fault.');
	const words = (of: typeof codes) => of.map(({ code }) => code).join(', ');
	if (!mended) {
		const [corner] = suspectCorners(entries, []);
		return corner && !entries.some(isBenchTest)
			? seeking(
					'measure',
					`Measure at ${positionWords(corner)}`,
					`The lamp told ${words(codes)}. A code names a circuit, never a part.`,
					'measure'
				)
			: seeking(
					'mend',
					'Find the fault, then write down the repair',
					`The lamp told ${words(codes)}.`,
					'repair'
				);
	}
	const due = calibrationStep(facts);
	if (due) return due;
	if (told.length > 0 && !toldNone)
		return drivenBefore
			? seeking('mend', `Look again: ${words(told)} told again`, 'It is there again after a drive.', 'repair')
			: atLamp('Make it forget, and read it again', `The lamp still told ${words(told)} after the repair.`);
	if (drivenBefore && toldNone) return toSign(facts, 'Driven since the repair, and its lamp keeps nothing.');
	const drive = latest(entries, 'proving-drive');
	const driven = drive !== null && happenedAfter(entries, drive, mended);
	return driven
		? atLamp('Read the lamp again', 'It was driven: now it can tell whether anything is kept.')
		: step('prove', 'Make it forget, then drive it', 'Only a drive lets it judge its sensors anew.', 'drive');
}

const lastMending = (entries: readonly Entry[]): Entry | null => entries.filter(isMending).at(-1) ?? null;

/** What work calls for comes before proving: a module that was not taught brings codes of its own. */
function calibrationStep({ entries }: CaseFacts): NextStep | null {
	const open = openCalibrations(entries);
	const next = open.find(({ waitsFor }) => waitsFor.length === 0) ?? open[0];
	if (!next) return null;
	const { calibration, module } = next.placed;
	const began =
		next.state === 'interrupted' ? 'It was cut short. ' : next.state === 'failed' ? 'It failed. ' : '';
	return {
		...step(
			'mend',
			`${calibration.name}, ${lowerFirst(module.name)}`,
			`${began}${upperFirst(whyDue(next))}. ${calibration.does}`,
			'calibrate'
		),
		page: 'calibrate'
	};
}

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

/** Away, and its test has run: what still stands between a code and its proof. */
function restStep(codes: readonly CaseCode[]): NextStep | null {
	const short = codes.find(({ proof }) => proof.verdict === 'not-far-enough');
	if (short) {
		const { because, asksReturns } = short.proof;
		return asksReturns
			? step('prove', `Say how often ${short.text} came before`, because, null)
			: { ...step('prove', `Drive on, for ${short.text}`, because), page: 'drive' };
	}
	const unseen = codes.find(
		({ proof }) => proof.verdict === 'not-all-shown' && proof.marks['live-clean']?.state === 'open'
	);
	return unseen ? step('watch', 'Record live data once more', unseen.proof.because, null) : null;
}

/** The order of proving: clear, key, lamps, read, drive, read. */
function proofStep(facts: CaseFacts): NextStep | null {
	const { entries, codes, lastClear, lastCompleteScan, lastScan, open } = facts;
	if (codes.length === 0) return silenceStep(facts);
	const mended = lastMending(entries);
	if (!lastClear || (mended && happenedAfter(entries, mended, lastClear) && open.length > 0)) {
		const refused = mayClear(facts, null);
		return refused.ok
			? step('prove', 'Clear the codes', 'They are recorded and the repair is written down.', 'clear')
			: step('prove', 'Read every module again', refused.error, 'read');
	}
	const since = (kind: 'key-cycled' | 'lamp-check' | 'proving-drive') => {
		const entry = latest(entries, kind);
		return entry && happenedAfter(entries, entry, lastClear) ? entry : null;
	};
	const cycled = since('key-cycled');
	if (!cycled)
		return step(
			'prove',
			'Turn the key off, wait, and on again',
			'A code that is gone before a key cycle has proven nothing.',
			'key'
		);
	const lampCheck = since('lamp-check');
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
		const drive = since('proving-drive');
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
				: `The test of ${list(waiting)} has not run since the clear.`,
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
