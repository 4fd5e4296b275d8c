import { error } from '@sveltejs/kit';
import { memberHere } from '$lib/server/cases/access';
import { packAsCsv, packAsJson } from '$library/packFile';

/** A pack as a file to keep or to pass on. */
export async function GET(event) {
	memberHere(event);
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
