import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { caseRowHere } from '$lib/server/cases/access';

export const _api: ApiRoute = {
	GET: {
		says: 'Which entries moved the probability of a link, and by how much.',
		query: {
			place: 'wheel, module or another place',
			link: 'link of the path',
			upto: 'length of the thread to look at'
		},
		gives: jsonOf('The entries, the strongest first.')
	}
};

/** Which entries moved the probability of a link of a place, and by how much. */
export async function GET({ params, url, locals }) {
	const { id: caseId } = await caseRowHere(locals.services, params.id);
	const asked = Number(url.searchParams.get('upto') ?? NaN);
	const why = await locals.services.thinking.ask('whyPage', {
		caseId,
		upTo: Number.isInteger(asked) && asked >= 1 ? asked : null,
		place: url.searchParams.get('place') ?? '',
		link: url.searchParams.get('link') ?? ''
	});
	if (!why) error(404, 'There is no such link on this vehicle, or nothing to reason about.');
	return json(why);
}
