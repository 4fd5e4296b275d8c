import type { ApiRoute } from '$lib/server/api/apiRoute';
import { caseRowHere } from '$lib/server/cases/access';

export const _api: ApiRoute = {
	GET: {
		says: 'A case with all its evidence, signed by the shop.',
		gives: { media: 'application/zip', says: 'The bundle.' }
	}
};

/** The whole case as one file. */
export async function GET({ params, request, locals }) {
	const row = await caseRowHere(locals.services, params.id);
	const zip = await locals.services.heavy.ask('bundle', row.id, { signal: request.signal });
	return new Response(zip as BodyInit, {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="${row.number}.zip"`
		}
	});
}
