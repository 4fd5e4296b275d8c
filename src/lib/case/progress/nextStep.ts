import type { Position } from '../../../../library';
import { comesOf } from '../proof/comesAndGoes';
import { triesAt } from '../proof/provocations';
import { undisturbed } from '../thread/inTheWay';
import { isReturned } from '../../core/prove/proof';
import { isBenchTest } from '../measure/benchTests';
import { typeOf } from '../thread/vehicleOf';
import { suspectCorners } from '../measure/measured';
import { standingItems } from './standingItems';
import { lampHistory } from '../codes/lampTold';
import { networkFindings, togetherIn } from '../codes/networkFindings';
import { lastMending, listed, proofStep } from './provingStep';
import { seeking, step, type NextStep } from './step';
import type { CaseFacts } from '../codes/caseFacts';
import { openCalibrations, whyDue } from '../mend/calibrations';
import { happenedAfter, latest, ofKind } from '../thread/thread';
import { lowerFirst, positionWords, upperFirst } from '../words';

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
			'Enter VIN and odometer',
			'Read both off the vehicle: they tie its codes to it.',
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
	const returned = codes.filter((code) => isReturned(code.proof.verdict) || code.proof.verdict === 'new');
	const lastSeenBack = returned.length > 0 ? lastScan : null;
	if (lastSeenBack && !(mended && happenedAfter(entries, mended, lastSeenBack))) {
		return seeking(
			'mend',
			`Look again: ${listed(returned)} came back`,
			returned[0]?.proof.because ?? '',
			'repair'
		);
	}
	const ownFaults = codes.filter(({ madeByUs }) => madeByUs === null);
	if (ownFaults.length > 0 && !mended) {
		const [finding] = networkFindings(lastCompleteScan.payload, typeOf(entries), facts.book);
		const looked = new Set(ofKind(entries, 'test-step').flatMap(({ payload }) => Object.keys(payload.seen)));
		const [together] = togetherIn(lastCompleteScan.payload, typeOf(entries), facts.book, looked);
		if (together && !entries.some(isBenchTest))
			return seeking('reason', together.title, `${together.todo} ${together.text}`);
		const [corner] = suspectCorners(entries, ownFaults);
		const fickle = corner ? provokingStep(facts, corner) : null;
		if (fickle) return fickle;
		if (corner && !entries.some(isBenchTest))
			return seeking(
				'measure',
				`Measure at ${positionWords(corner)}`,
				`${finding ? `${finding.todo} ${finding.title}.` : `${listed(ownFaults.slice(0, 3))} recorded.`} A code names a circuit, never a part.`,
				'measure'
			);
		return seeking(
			'mend',
			'Find the fault, then write down the repair',
			finding
				? `${finding.todo} ${finding.title}.`
				: `${listed(ownFaults.slice(0, 3))} recorded; nothing has been mended yet.`,
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

/** A wheel of which nothing fails now is not measured at rest: what was stored there is made to come, unless it was found already. */
function provokingStep({ entries, codes }: CaseFacts, corner: Position): NextStep | null {
	const counting = undisturbed(entries);
	const own = codes.filter((code) => code.corner === corner && code.madeByUs === null);
	if (own.length === 0 || own.some((code) => comesOf(counting, code, codes) === null)) return null;
	// Whoever has tested anything goes on by what that showed; without a link it is written down as steps.
	const tested = entries.some((entry) => isBenchTest(entry) || entry.kind === 'test-step');
	if (tested || triesAt(counting, corner).length > 0) return null;
	return {
		...seeking(
			'measure',
			`Make it come, ${lowerFirst(positionWords(corner))}`,
			`${listed(own.slice(0, 3))} stored and not failing now: at rest everything reads well. Move, wet, warm and turn it while its value is watched.`
		),
		page: 'provoke'
	};
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
