import { caseRowHere } from '$lib/server/cases/access';

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
