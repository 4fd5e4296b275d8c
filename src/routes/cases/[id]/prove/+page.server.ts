import type { CaseCode } from '$lib/case/codes';
import type { Entry } from '$lib/case/entry';
import { LAMPS } from '$lib/case/entry';
import { lampStory } from '$lib/case/lampTold';
import { openCalibrations } from '$lib/case/calibrations';
import { untaught } from '$lib/case/project';
import { lowerFirst } from '$lib/case/words';
import { proofHeadline } from '$lib/case/headline';
import { mayClear } from '$lib/case/mayClear';
import { testNeeds } from '$lib/case/nextStep';
import { happenedAfter, latest } from '$lib/case/thread';
import { PROOF_MARKS, VERDICT_WORDS } from '$lib/core/prove/codeVerdict';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor, filled } from '$lib/server/cases/entryForms';
import { DriveForm, KeyByHandForm, LampCheckForm, NOT_WATCHED } from './forms';

/** Why a verdict stands, with where the code came from. */
function becauseOf({ madeByUs, expected, proof }: CaseCode): string {
	if (madeByUs) return `Made by us: our own test opened its circuit. ${proof.because}`;
	return expected ? `Expected: ${expected}. ${proof.because}` : proof.because;
}

/** What a vehicle's lamp has told, where it has nothing else to tell by. */
function lampOf(entries: readonly Entry[]) {
	const story = lampStory(entries);
	if (!story) return null;
	const drive = latest([...entries], 'proving-drive');
	const driven = drive !== null && happenedAfter(entries, drive, story.mended);
	return {
		read: story.read,
		codes: story.codes.map((code) => ({
			...code,
			now: story.toldNone
				? 'no longer told'
				: story.told.some((one) => one.code === code.code)
					? 'told since the repair'
					: 'told before the repair'
		})),
		driven: driven ? clock(drive.observedAt) : null,
		clean: story.toldNone && story.drivenBefore
	};
}

export const load = async ({ params, depends }) => {
	depends('jaldi:case');
	const { view } = await loadCase(params.id);
	const { entries, lastClear, lastCompleteScan } = view;
	const since = (kind: 'key-cycled' | 'lamp-check' | 'proving-drive') => {
		const entry = latest(entries, kind);
		return lastClear && entry && happenedAfter(entries, entry, lastClear) ? clock(entry.observedAt) : null;
	};
	const clearable = mayClear(view, null);
	const reported = latest(entries, 'lamps-reported')?.payload.lamps.map((l) => l.lamp) ?? [];
	const toWatch =
		reported.length > 0
			? LAMPS.filter((lamp) => reported.includes(lamp))
			: (['anti-lock', 'stability'] as const);
	// A reading counts for this step only after everything that could have changed what it says.
	const steps = [lastClear, latest(entries, 'key-cycled'), latest(entries, 'proving-drive')];
	const readAgain =
		lastClear !== null &&
		lastCompleteScan !== null &&
		steps.every((done) => happenedAfter(entries, lastCompleteScan, done));
	return {
		codes: view.codes.map((code) => ({
			key: `${code.address}/${code.dtc}`,
			text: code.text,
			title: code.title ?? 'Not in the library yet',
			moduleName: code.moduleName,
			address: code.address,
			verdict: VERDICT_WORDS[code.proof.verdict],
			// What is on its way to being proven is not cleared again by a slip of the hand.
			mayBeCleared: !['proven-clear', 'test-not-run'].includes(code.proof.verdict),
			because: becauseOf(code),
			needs: code.proof.verdict === 'test-not-run' ? testNeeds(code.dtc, view) : null,
			marks: PROOF_MARKS.map((mark) => ({ mark, state: code.proof.marks[mark] }))
		})),
		headline: proofHeadline(view.codes),
		open: view.open.filter((reason) => !untaught(view).includes(reason)),
		due: openCalibrations(view.entries).map(({ placed }) => lowerFirst(placed.calibration.name)),
		scanned: view.lastScan !== null,
		lamp: lampOf(entries),
		clear: clearable.ok
			? { modules: clearable.value, refusal: null }
			: { modules: [], refusal: clearable.error },
		done: {
			clear: lastClear ? clock(lastClear.observedAt) : null,
			key: since('key-cycled'),
			lamps: since('lamp-check'),
			drive: since('proving-drive'),
			read: readAgain ? clock(lastCompleteScan.observedAt) : null
		},
		keyForm: await entryFormFor(KeyByHandForm, {}),
		lampForm: await entryFormFor(LampCheckForm, {
			lamps: toWatch.map((lamp) => ({ lamp, result: NOT_WATCHED }))
		}),
		driveForm: await entryFormFor(DriveForm, {
			distanceKm: null,
			topSpeedKmh: null,
			stops: 1,
			road: 'dry',
			driver: '',
			note: ''
		})
	};
};

export const actions = {
	key: entryAction(
		KeyByHandForm,
		'key-cycled',
		() => ({ confirmedBy: 'person', countBefore: null, countAfter: null }),
		'Key cycle saved, by your word.'
	),
	lamps: entryAction(
		LampCheckForm,
		'lamp-check',
		({ lamps }) => ({
			lamps: lamps.flatMap(({ lamp, result }) => (result === NOT_WATCHED ? [] : [{ lamp, result }]))
		}),
		'Lamp check saved.'
	),
	drive: entryAction(
		DriveForm,
		'proving-drive',
		({ distanceKm, topSpeedKmh, stops, road, driver, note }) => ({
			distanceKm: filled(distanceKm),
			topSpeedKmh: filled(topSpeedKmh),
			stops: filled(stops),
			road,
			driver,
			note
		}),
		'Drive saved. Now read every module again.'
	)
};
