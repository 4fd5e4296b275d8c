import { error } from '@sveltejs/kit';
import { caseCalibrations, whyDue } from '$lib/case/calibrations';
import { describeEntry } from '$lib/case/describe';
import { checkChain } from '$lib/case/hashChain';
import { latest, ofKind, standing } from '$lib/case/thread';
import { lowerFirst, positionWords } from '$lib/case/words';
import { VERDICT_WORDS } from '$lib/core/prove/proof';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { paperDate } from '$lib/server/cases/clock';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { maySign } from '$lib/server/accounts/members';
import { SignForm } from './forms';

const STATE_WORDS = {
	due: 'not done',
	done: 'done',
	waived: 'left out by a lead',
	failed: 'failed',
	interrupted: 'cut short'
} as const;

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { thread, view } = await loadCase(params.id);
	const { entries } = view;
	const chain = checkChain(thread);
	const counting = new Set(standing(thread).map((entry) => entry.id));
	const drives = ofKind(entries, 'proving-drive');
	return {
		vehicle: latest(entries, 'vehicle-checked')?.payload ?? null,
		complaintWords: latest(entries, 'complaint')?.payload.words ?? null,
		lamps: latest(entries, 'lamps-reported')?.payload.lamps ?? [],
		prior: latest(entries, 'prior-work')?.payload.works ?? [],
		codes: view.codes.map((code) => ({
			key: `${code.address}/${code.dtc}`,
			text: code.text,
			title: code.title ?? 'Not in the library yet',
			failureType: code.failureType,
			moduleName: code.moduleName,
			verdict: VERDICT_WORDS[code.proof.verdict],
			because: code.proof.because
		})),
		repairs: ofKind(entries, 'repair').map(({ payload }) => ({
			...payload,
			where: payload.position ? positionWords(payload.position) : null
		})),
		calibrations: caseCalibrations(entries).map((one) => ({
			id: one.id,
			name: `${one.placed.calibration.name}, ${lowerFirst(one.placed.module.name)}`,
			state: STATE_WORDS[one.state],
			values:
				one.entry?.kind === 'calibration'
					? one.entry.payload.values
							.filter(({ after }) => after !== null)
							.map(({ name, before, after, unit }) => `${name} ${before ?? 'none'} → ${after} ${unit}`.trim())
					: [],
			words:
				one.entry?.kind === 'calibration-waived'
					? `${one.entry.payload.why} (${one.entry.authorName})`
					: one.entry?.kind === 'calibration'
						? one.entry.payload.detail
						: whyDue(one)
		})),
		drivenKm: drives.reduce((sum, drive) => sum + drive.payload.distanceKm, 0),
		lampCheck: latest(entries, 'lamp-check')?.payload.lamps ?? [],
		verdict: view.verdict,
		proven: view.proven,
		open: view.open,
		signature: view.signature && {
			by: view.signature.authorName,
			at: paperDate(view.signature.receivedAt),
			statement: view.signature.payload.statement
		},
		evidence: thread.map((entry) => ({
			seq: entry.seq,
			at: paperDate(entry.observedAt),
			by: entry.authorName,
			...describeEntry(entry),
			hash: entry.hash,
			superseded: !counting.has(entry.id)
		})),
		chainBroken: chain.intact ? null : chain.reason,
		printedAt: paperDate(new Date().toISOString()),
		maySign: locals.member !== null && maySign(locals.member),
		signForm: await entryFormFor(SignForm, { statement: 'Checked against the evidence and released.' })
	};
};

export const actions = {
	sign: async (event) => {
		if (!maySign(memberHere(event))) error(403, 'Only a lead signs a case off.');
		const { view } = await loadCase(event.params.id);
		return entryAction(
			SignForm,
			'signature',
			({ statement }) =>
				view.open.length > 0 ? `Not yet: ${view.open[0]}` : { statement, verdict: view.verdict },
			'Signed. The thread is closed.'
		)(event);
	}
};
