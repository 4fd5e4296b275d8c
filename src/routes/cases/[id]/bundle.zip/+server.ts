import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

/** The whole case as one file. */
export async function GET({ params, request }) {
	const row = await caseRowHere(params.id);
	const zip = await services().heavy.ask('bundle', row.id, { signal: request.signal });
	return new Response(zip as BodyInit, {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="${row.number}.zip"`
		}
	});
}
