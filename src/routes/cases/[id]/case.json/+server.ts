import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { writeCaseFile } from '$lib/case/thread/caseFile';
import { caseRowHere } from '$lib/server/cases/access';

export const _api: ApiRoute = {
	GET: {
		says: 'The whole thread of a case.',
		gives: json('A case file: what the command line reads.')
	}
};

/** The whole thread as a file: what `jaldi plan` reads. */
export async function GET({ params, locals }) {
	const row = await caseRowHere(locals.services, params.id);
	const thread = await locals.services.threads.read(row.id);
	return new Response(writeCaseFile(thread), {
		headers: {
			'content-type': 'application/json',
			'content-disposition': `attachment; filename="case-${row.number}.json"`
		}
	});
}
