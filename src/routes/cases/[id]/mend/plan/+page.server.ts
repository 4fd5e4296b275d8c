import { caseRowHere } from '$lib/server/cases/access';

export const load = async ({ params, depends, url, locals }) => {
	depends('jaldi:case');
	const { id: caseId } = await caseRowHere(locals.services, params.id);
	const asked = url.searchParams;
	return locals.services.thinking.ask('planPage', {
		caseId,
		kind: asked.get('does'),
		place: asked.get('place'),
		harsh: asked.get('harsh') !== 'no'
	});
};
