import { error } from '@sveltejs/kit';
import { beforeAfter } from '$lib/case/paper/beforeAfter';
import { proofView, type ProofView } from '$lib/case/proof/proofView';
import type { Entry } from '$lib/case/entries/entry';
import { LAMPS } from '$library/positions';
import { lampStory } from '$lib/case/codes/lampTold';
import { openCalibrations } from '$lib/case/mend/calibrations';
import { untaught } from '$lib/case/progress/project';
import { whenItShows } from '$lib/case/listen/complaint';
import { facetsOf } from '$library/vocabulary';
import { lowerFirst } from '$lib/case/words';
import { proofHeadline } from '$lib/case/proof/headline';
import { mayClear } from '$lib/case/codes/mayClear';
import { testNeeds } from '$lib/case/progress/nextStep';
import { happenedAfter, latest } from '$lib/case/thread/thread';
import type { Verdict } from '$lib/core/prove/proof';
import { maySign } from '$lib/server/accounts/members';
import { caseHere, loadCase, memberHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor, filled } from '$lib/server/cases/entryForms';
import {
	DriveForm,
	KeyByHandForm,
	LampCheckForm,
	LetGoForm,
	NOT_WATCHED,
	ReturnsForm,
	showsWhenOf,
	splitCodeKey
} from './forms';

const ON_ITS_WAY: readonly Verdict[] = [
	'proven-clear',
	'released',
	'test-not-run',
	'not-all-shown',
	'not-far-enough'
];

/** The moments of a checklist as the page says them. */
const withClock = (view: ProofView) => ({
	...view,
	marks: view.marks.map(({ by, ...line }) => ({
		...line,
		by: by && { author: by.author, time: clock(by.observedAt) }
	}))
});

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

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
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
	const complaint = latest(entries, 'complaint')?.payload;
	const shows = facetsOf(complaint?.when ?? []);
	const cautions = await cautionsHere(locals.services, type);
	return {
		cautions: cautions.words(['road', 'manoeuvres']),
		codes: view.codes.map((code) => ({
			key: `${code.address}/${code.dtc}`,
			text: code.text,
			title: code.title ?? 'Not in the library yet',
			moduleName: code.moduleName,
			address: code.address,
			// What is on its way to being proven is not cleared again by a slip of the hand.
			mayBeCleared: !ON_ITS_WAY.includes(code.proof.verdict),
			needs: code.proof.verdict === 'test-not-run' ? testNeeds(code.dtc, view) : null,
			proof: withClock(proofView(code, entries, view.codes))
		})),
		sides: beforeAfter(entries),
		mayLetGo: locals.member !== null && maySign(locals.member),
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
		returnsForm: await entryFormFor(ReturnsForm, {
			code: '',
			returns: null,
			overKm: null,
			from: 'the customer',
			conditions: complaint ? whenItShows(complaint).join(', ') : '',
			fromKmh: null,
			toKmh: null,
			turning: shows.has('turning'),
			road: shows.has('wet') ? 'wet' : ''
		}),
		letGoForm: await entryFormFor(LetGoForm, { code: '', mark: 'exposure', reason: '', customer: '' }),
		driveForm: await entryFormFor(DriveForm, {
			distanceKm: null,
			asShownKm: null,
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
		({ distanceKm, asShownKm, topSpeedKmh, stops, road, driver, note }) => ({
			distanceKm: filled(distanceKm),
			...(asShownKm === null ? {} : { asShownKm }),
			topSpeedKmh: filled(topSpeedKmh),
			stops: filled(stops),
			road,
			driver,
			note
		}),
		'Drive saved. Now read every module again.'
	),
	returns: entryAction(
		ReturnsForm,
		'returns-told',
		async ({ code, returns, overKm, from, conditions, ...when }, { locals }) => ({
			...splitCodeKey(code),
			returns: filled(returns),
			overKm: filled(overKm),
			from,
			conditions,
			showsWhen: showsWhenOf(when),
			target: await locals.services.settings.read('residualTarget')
		}),
		'Saved: the distance that is still needed follows from it.'
	),
	letGo: async (event) => {
		if (!maySign(memberHere(event))) error(403, 'Only a lead lets a part of the proof go.');
		const { view } = await loadCase(event.locals.services, event.params.id);
		return entryAction(
			LetGoForm,
			'proof-waived',
			({ code: key, mark, reason, customer }) => {
				const code = view.codes.find(({ address, dtc }) => `${address}/${dtc}` === key);
				const shown = code && proofView(code, view.entries, view.codes);
				if (!shown?.waivable.includes(mark)) return 'There is nothing to let go here any more.';
				const residualChance = mark === 'exposure' ? (shown.comes?.residual ?? null) : null;
				return { ...splitCodeKey(key), mark, why: reason, customer, residualChance };
			},
			'Let go in your name; it stands on the report.'
		)(event);
	}
};
