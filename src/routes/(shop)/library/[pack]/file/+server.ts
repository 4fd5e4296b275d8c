import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { packAsCsv, packAsJson } from '$library/packFile';

export const _api: ApiRoute = {
	GET: {
		says: 'A pack of code definitions.',
		query: { as: 'json or csv' },
		gives: json('The pack.')
	}
};

/** A pack as a file to keep or to pass on. */
export async function GET(event) {
	const pack = await event.locals.services.codes.exportPack(event.params.pack);
	if (!pack) error(404, 'There is no such pack. It may have been taken away.');
	const csv = event.url.searchParams.get('as') === 'csv';
	return new Response(csv ? packAsCsv(pack) : packAsJson(pack), {
		headers: {
			'content-type': csv ? 'text/csv; charset=utf-8' : 'application/json',
			'content-disposition': `attachment; filename="${pack.id}.${csv ? 'csv' : 'json'}"`
		}
	});
}
