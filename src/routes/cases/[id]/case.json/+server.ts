import { writeCaseFile } from '$lib/case/caseFile';
import { loadCase } from '$lib/server/cases/access';

/** The whole thread as a file: what `jaldi plan` reads. */
export async function GET({ params }) {
	const { row, thread } = await loadCase(params.id);
	return new Response(writeCaseFile(thread), {
		headers: {
			'content-type': 'application/json',
			'content-disposition': `attachment; filename="case-${row.number}.json"`
		}
	});
}
