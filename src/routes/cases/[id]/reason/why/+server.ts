import { error, json } from '@sveltejs/kit';
import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

/** Which entries moved the probability of a link of a place, and by how much. */
export async function GET({ params, url }) {
	const { id: caseId } = await caseRowHere(params.id);
	const asked = Number(url.searchParams.get('upto') ?? NaN);
	const why = await services().thinking.ask('whyPage', {
		caseId,
		upTo: Number.isInteger(asked) && asked >= 1 ? asked : null,
		place: url.searchParams.get('place') ?? '',
		link: url.searchParams.get('link') ?? ''
	});
	if (!why) error(404, 'There is no such link on this vehicle, or nothing to reason about.');
	return json(why);
}
