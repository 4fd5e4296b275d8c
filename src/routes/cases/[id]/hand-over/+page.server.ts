import { error } from '@sveltejs/kit';
import { caseReport } from '$lib/case/report';
import { mayNotSign } from '$lib/case/signing';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { paperDate } from '$lib/server/cases/clock';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { maySign } from '$lib/server/accounts/members';
import { services } from '$lib/server/running';
import { SignForm } from './forms';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { thread, view } = await loadCase(params.id);
	const report = caseReport(thread, view);
	const { settings } = services();
	const member = locals.member !== null && maySign(locals.member) ? locals.member : null;
	return {
		shopName: await settings.read('shopName'),
		report: {
			...report,
			signature: report.signature && { ...report.signature, at: paperDate(report.signature.at) },
			evidence: report.evidence.map((line) => ({ ...line, at: paperDate(line.at) }))
		},
		printedAt: paperDate(new Date().toISOString()),
		maySign: member !== null,
		notBy: member && mayNotSign(view, member.id, await settings.read('signOwnRepair')),
		signForm: await entryFormFor(SignForm, { statement: 'Checked against the evidence and released.' })
	};
};

export const actions = {
	sign: async (event) => {
		const member = memberHere(event);
		if (!maySign(member)) error(403, 'Only a lead signs a case off.');
		const { view } = await loadCase(event.params.id);
		const refusal = mayNotSign(view, member.id, await services().settings.read('signOwnRepair'));
		return entryAction(
			SignForm,
			'signature',
			({ statement }) => refusal ?? { statement, verdict: view.verdict },
			'Signed. The thread is closed.'
		)(event);
	}
};
