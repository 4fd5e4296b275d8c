import { caseRowHere } from '$lib/server/cases/access';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { id: caseId } = await caseRowHere(locals.services, params.id);
	return { alike: await locals.services.thinking.ask('alikePage', { caseId }) };
};
