import { json } from '@sveltejs/kit';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';

export const _api: ApiRoute = {
	GET: {
		says: 'Customers by a part of their name, number or e-mail.',
		query: { q: 'what was typed' },
		gives: jsonOf('Who is meant, at most eight.')
	}
};

const LONGEST = 100;
const MOST = 8;

export async function GET({ url, locals }) {
	const text = (url.searchParams.get('q') ?? '').trim().slice(0, LONGEST);
	return json(text === '' ? [] : await locals.services.customers.search(text, MOST));
}
