import type { ApiRoute } from '$lib/server/api/apiRoute';
import { csvOf } from '$lib/server/csv';

export const _api: ApiRoute = {
	GET: {
		says: 'Who changed whom, and what was changed for the whole shop.',
		gives: { media: 'text/csv', says: 'One line an act, newest first.' }
	}
};

/** The admin log as a file. */
export async function GET({ locals }) {
	const rows: unknown[][] = [];
	for await (const page of locals.services.adminLog.all())
		for (const { seq, at, byName, what, facts } of page)
			rows.push([seq, at, byName, what, facts.of, facts.from ?? '', facts.to ?? '']);
	return new Response(csvOf(['number', 'at', 'by', 'what', 'of', 'from', 'to'], rows), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': 'attachment; filename="jaldi-changes.csv"'
		}
	});
}
