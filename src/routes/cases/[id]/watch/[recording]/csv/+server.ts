import { error } from '@sveltejs/kit';
import { writeCsv } from '$lib/core/live/writeCsv';
import { services } from '$lib/server/running';

/** A recording as CSV, as `jaldi live` reads it. */
export async function GET({ params }) {
	const { captures } = services().desk;
	if ((await captures.caseOf(params.recording)) !== params.id) error(404, 'There is no such recording here.');
	const samples = await captures.read(params.recording);
	if (!samples) error(404, 'This recording holds no samples.');
	return new Response(writeCsv(samples), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="live-${params.recording}.csv"`
		}
	});
}
