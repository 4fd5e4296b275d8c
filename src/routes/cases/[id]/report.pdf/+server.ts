import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

export async function GET({ params, url, request }) {
	const row = await caseRowHere(params.id);
	const reader = url.searchParams.get('for') === 'customer' ? 'customer' : 'technician';
	const pdf = await services().heavy.ask('paper', { caseId: row.id, reader }, { signal: request.signal });
	return new Response(pdf as BodyInit, {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${row.number}-${reader}.pdf"`
		}
	});
}
