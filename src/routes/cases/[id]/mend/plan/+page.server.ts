import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

export const load = async ({ params, depends, url }) => {
	depends('jaldi:case');
	const { id: caseId } = await caseRowHere(params.id);
	const asked = url.searchParams;
	return services().thinking.ask('planPage', {
		caseId,
		kind: asked.get('does'),
		place: asked.get('place'),
		harsh: asked.get('harsh') !== 'no'
	});
};
