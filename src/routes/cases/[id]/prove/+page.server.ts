import { codeKey, splitCodeKey } from '$lib/core/codes/codeKey';
import { beforeAfter } from '$lib/case/paper/beforeAfter';
import { proofView, type ProofView } from '$lib/case/proof/proofView';
import type { Entry } from '$lib/case/entries/entry';
import { isMending, openCalibrations } from '$lib/case/mend/calibrations';
import { openWords } from '$lib/case/codes/openReason';
import { complaintThings } from '$lib/case/listen/complaintThings';
import { ANSWER_WORDS } from '$lib/case/listen/complaintWords';
import { whenItShows } from '$lib/case/listen/complaint';
import { facetsOf } from '$library/vocabulary';
import { lowerFirst } from '$lib/case/words';
import {
	lampProof,
	lampsToWatch,
	mayBeClearedAgain,
	proofSteps,
	LAMP_CODE_WORDS
} from '$lib/case/proof/proofSteps';
import { proofHeadline } from '$lib/case/proof/headline';
import { mayClear } from '$lib/case/codes/mayClear';
import { testNeeds } from '$lib/case/progress/provingStep';
import { latest } from '$lib/case/thread/thread';
import { maySign } from '$lib/server/accounts/members';
import { caseHere, loadCase } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor, filled } from '$lib/server/cases/entryForms';
import {
	AnswerForm,
	ClearedForm,
	DriveForm,
	KeyByHandForm,
	LampCheckForm,
	LetGoForm,
	NOT_WATCHED,
	ReturnsForm,
	showsWhenOf
} from './forms';

/** The moments of a checklist as the page says them. */
const withClock = (view: ProofView) => ({
	...view,
	marks: view.marks.map(({ by, ...line }) => ({
		...line,
		by: by && { author: by.author, time: clock(by.observedAt) }
	}))
});

/** What a vehicle's lamp has told, in words. */
function lampOf(entries: readonly Entry[]) {
	const proof = lampProof(entries);
	return (
		proof && {
			...proof,
			codes: proof.codes.map((code) => ({ ...code, now: LAMP_CODE_WORDS[code.now] })),
			drive: at(proof.drive)
		}
	);
}
const at = (entry: Entry | null): string | null => entry && clock(entry.observedAt);

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	const { entries } = view;
	const clearable = mayClear(view, null);
	const steps = proofSteps(view);
	const complaint = latest(entries, 'complaint')?.payload;
	const shows = facetsOf(complaint?.when ?? []);
	const cautions = await cautionsHere(locals.services, type);
	return {
		cautions: cautions.words(['road', 'manoeuvres']),
		codes: view.codes.map((code) => ({
			key: codeKey(code),
			text: code.text,
			title: code.called,
			moduleName: code.moduleName,
			address: code.address,
			mayBeCleared: mayBeClearedAgain(code.proof.verdict),
			needs: code.proof.verdict === 'test-not-run' ? testNeeds(code.dtc, view) : null,
			proof: withClock(proofView(code, entries, view.codes))
		})),
		sides: beforeAfter(entries),
		mayLetGo: locals.member !== null && maySign(locals.member),
		headline: proofHeadline(view.codes),
		open: view.open.filter(({ reason }) => reason !== 'calibration-due').map(openWords),
		due: openCalibrations(view.entries).map(({ placed }) => lowerFirst(placed.calibration.name)),
		scanned: view.lastScan !== null,
		lamp: lampOf(entries),
		clear: clearable.ok
			? { modules: clearable.value, refusal: null }
			: { modules: [], refusal: clearable.error },
		done: {
			clear: at(steps.clear),
			key: at(steps.key),
			lamps: at(steps.lamps),
			drive: at(steps.drive),
			read: at(steps.read)
		},
		clearedForm: await entryFormFor(ClearedForm, {
			tool: view.lastScan?.payload.otherTool?.tool ?? ''
		}),
		keyForm: await entryFormFor(KeyByHandForm, {}),
		lampForm: await entryFormFor(LampCheckForm, {
			lamps: lampsToWatch(entries).map((lamp) => ({ lamp, result: NOT_WATCHED }))
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
		complaint: complaintThings(entries).map((one) => ({
			...one,
			answer: one.answer && {
				...one.answer,
				said: ANSWER_WORDS[one.answer.how],
				time: clock(one.answer.at)
			}
		})),
		mended: entries.some(isMending),
		answerForm: await entryFormFor(AnswerForm, { what: 'words', thing: '', how: 'shows-again', reason: '' }),
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
	cleared: entryAction(
		ClearedForm,
		'codes-cleared',
		async ({ tool }, { params, locals }) => {
			const targets = mayClear((await loadCase(locals.services, params.id)).view, null);
			if (!targets.ok) return targets.error;
			const modules = targets.value.map((target) => ({
				...target,
				outcome: 'cleared' as const,
				detail: null
			}));
			return { modules, keyCycles: null, otherTool: { tool } };
		},
		'Clearing saved, by your word.'
	),
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
	answer: entryAction(
		AnswerForm,
		'complaint-answered',
		async ({ what, thing, how, reason }, { params, locals }) => {
			const { view } = await loadCase(locals.services, params.id);
			const known = complaintThings(view.entries).some((one) => one.what === what && one.thing === thing);
			if (how === 'gone' && !view.entries.some(isMending))
				return 'Nothing has been mended yet: then it does not show, or something explains it.';
			return known
				? { what, thing, how, why: reason }
				: 'The customer said something else meanwhile: load the page again.';
		},
		'Saved beside what the customer said.'
	),
	letGo: async (event) => {
		const { view } = await loadCase(event.locals.services, event.params.id);
		return entryAction(
			LetGoForm,
			'proof-waived',
			({ code: key, mark, reason, customer }) => {
				const code = view.codes.find((one) => codeKey(one) === key);
				const shown = code && proofView(code, view.entries, view.codes);
				if (!shown?.waivable.includes(mark)) return 'There is nothing to let go here any more.';
				const residualChance = mark === 'exposure' ? (shown.comes?.residual ?? null) : null;
				return { ...splitCodeKey(key), mark, why: reason, customer, residualChance };
			},
			'Let go in your name; it stands on the report.'
		)(event);
	}
};
