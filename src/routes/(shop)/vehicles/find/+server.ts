import { json } from '@sveltejs/kit';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';

export const _api: ApiRoute = {
	GET: {
		says: 'Vehicles that were here, by a part of their name, plate or number.',
		query: { q: 'what was typed' },
		gives: jsonOf('Which are meant, at most eight.')
	}
};

const LONGEST = 100;
const MOST = 8;
/** Cases that are looked at for them: a vehicle may have been here often. */
const MOST_CASES = 40;

export async function GET({ url, locals }) {
	const text = (url.searchParams.get('q') ?? '').trim().slice(0, LONGEST);
	const named = text === '' ? [] : await locals.services.cases.named(text, MOST_CASES);
	const each = new Map(
		named.map(({ vehicleId, vehicle, plate }) => [vehicleId, { id: vehicleId, name: vehicle, detail: plate }])
	);
	return json([...each.values()].slice(0, MOST));
}
