import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { writeCsv } from '$lib/core/live/writeCsv';

export const _api: ApiRoute = {
	GET: {
		says: 'A recording as CSV.',
		gives: { media: 'text/csv', says: 'Time in seconds, then a column for each signal.' }
	}
};

/** A recording as CSV, as `jaldi live` reads it. */
export async function GET({ params, locals }) {
	const { captures } = locals.services;
	const own = { caseId: params.id, id: params.recording };
	const samples = await captures.read(own);
	if (!samples) error(404, 'This recording holds no samples.');
	return new Response(writeCsv(samples), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="live-${params.recording}.csv"`
		}
	});
}
