import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import { isValid, ulid } from 'ulid';
import { comebackOf } from '$lib/case/proof/comeback';
import { caseNumber } from '$lib/server/db/caseNumber';
import { standingItems } from '$lib/case/progress/standingItems';
import { CLOSED_UNPROVEN } from '$lib/case/progress/project';
import { caseReport, groupedCodes } from '$lib/case/paper/report';
import { reportInUnits } from '$lib/case/paper/reportInUnits';
import { keyName } from '$lib/case/paper/bundleSignature';
import type { Signer } from '$lib/server/db/shopKeys';
import { leftOpen, mayNotCloseUnproven, mayNotSign } from '$lib/case/progress/signing';
import { loadCase, loadCheckedCase, memberHere } from '$lib/server/cases/access';
import { paperDate } from '$lib/server/cases/clock';
import { openComeback } from '$lib/server/cases/openComeback';
import { unitsFor } from '$lib/server/cases/unitsFor';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { maySign } from '$lib/server/accounts/members';
import { ReleaseForm, SignForm, UnprovenForm } from './forms';

/** What the signature on a bundle that came in is worth here. */
function signedWords({ kind }: Signer, key: string | null): string {
	if (kind === 'nobody' || key === null)
		return 'Its file carried no signature: nothing shows that it is theirs.';
	return kind === 'stranger'
		? `Its file was signed with the key ${keyName(key)} …, which nobody here knows.`
		: `Its file was signed with the key ${keyName(key)} …, which a lead here trusts.`;
}

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, thread, view } = await loadCheckedCase(locals.services, params.id);
	const report = reportInUnits(caseReport(thread, view, row.chainBroken), await unitsFor(locals));
	const { settings } = locals.services;
	const member = locals.member !== null && maySign(locals.member) ? locals.member : null;
	return {
		shopName: await settings.read('shopName'),
		fromShop: row.fromShop && {
			name: row.fromShop,
			signed: signedWords(await locals.services.shopKeys.signer(row.fromKey), row.fromKey)
		},
		report: {
			...report,
			codes: groupedCodes(report.codes),
			signature: report.signature && { ...report.signature, at: paperDate(report.signature.at) },
			evidence: report.evidence.map((line) => ({ ...line, at: paperDate(line.at) }))
		},
		comeback: {
			of: comebackOf(view.entries),
			cases: (await locals.services.trackRecord.comebacksOf(params.id)).map(({ id, number }) => ({
				id,
				number: caseNumber(number)
			})),
			newId: ulid(),
			worksId: ulid()
		},
		printedAt: paperDate(new Date().toISOString()),
		standing: standingItems(view.entries),
		releaseForm: await entryFormFor(ReleaseForm, {
			subject: 'finding' as const,
			of: '',
			words: '',
			reason: ''
		}),
		maySign: member !== null,
		notBy: member && mayNotSign(view, member.id, await settings.read('signOwnRepair')),
		/** Null where a lead may close it with things open. */
		notUnproven: member && mayNotCloseUnproven(view),
		unprovenForm: await entryFormFor(UnprovenForm, { statement: '', head: thread.at(-1)?.hash ?? '' }),
		signForm: await entryFormFor(SignForm, {
			statement: 'Checked against the evidence and released.',
			head: thread.at(-1)?.hash ?? ''
		})
	};
};

/** The case as a lead is about to close it; `busy` says who is at its vehicle. Throws 403 for anybody else. */
async function toClose(event: RequestEvent<{ id: string }>) {
	const member = memberHere(event);
	const { row, view } = await loadCheckedCase(event.locals.services, event.params.id);
	const runs = event.locals.services.vehicleJobs.runningOn(row.vehicle.linkAddress);
	const busy = runs ? `Not yet: ${runs.by} is at this vehicle. Wait until that is done, or stop it.` : null;
	return { member, view, busy };
}

export const actions = {
	sign: async (event) => {
		const { member, view, busy } = await toClose(event);
		const refusal =
			busy ?? mayNotSign(view, member.id, await event.locals.services.settings.read('signOwnRepair'));
		return entryAction(
			SignForm,
			'signature',
			({ statement }) =>
				refusal ?? { statement, verdict: view.verdict, outcome: view.released ? 'released' : 'proven' },
			'Signed. The thread is closed.',
			({ head }) => ({ afterHead: head })
		)(event);
	},
	/** What cannot be proven is not kept open for ever: a lead closes it, says why, and the papers say what is not proven. */
	unproven: async (event) => {
		const { view, busy } = await toClose(event);
		const refusal = busy ?? mayNotCloseUnproven(view);
		return entryAction(
			UnprovenForm,
			'signature',
			({ statement }) =>
				refusal ?? { statement, verdict: CLOSED_UNPROVEN, outcome: 'unproven', left: leftOpen(view) },
			'Closed unproven. The thread is closed.',
			({ head }) => ({ afterHead: head })
		)(event);
	},
	/** A lead lets go, by name, of what stands besides the codes. */
	release: async (event) => {
		const { view } = await loadCase(event.locals.services, event.params.id);
		return entryAction(
			ReleaseForm,
			'release',
			({ subject, of, reason }) => {
				const item = standingItems(view.entries).find((one) => one.subject === subject && one.of === of);
				return item ? { subject, of, words: item.words, why: reason } : 'That does not stand any more.';
			},
			'Released, in your name.'
		)(event);
	},
	/** The thread is closed: what comes after a signature is a case of its own, which begins with what was done. */
	comeback: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const [id, worksId] = ['caseId', 'worksId'].map((name) => String(form.get(name) ?? '')) as [
			string,
			string
		];
		if (!isValid(id) || !isValid(worksId))
			error(400, 'The comeback has no number of its own: load the page again.');
		const opened = await openComeback(event.locals.services, event.params.id, { id, worksId }, member);
		if (!opened.ok) error(409, opened.error);
		redirect(303, `/cases/${id}/listen`);
	}
};
