import { writeCaseFile } from '$lib/case/caseFile';
import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

/** The whole thread as a file: what `jaldi plan` reads. */
export async function GET({ params }) {
	const row = await caseRowHere(params.id);
	const thread = await services().threads.read(row.id);
	return new Response(writeCaseFile(thread), {
		headers: {
			'content-type': 'application/json',
			'content-disposition': `attachment; filename="case-${row.number}.json"`
		}
	});
}
