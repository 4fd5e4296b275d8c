import { READERS } from '$lib/server/report/readers';
import type { ApiRoute } from '$lib/server/api/apiRoute';
import { caseRowHere } from '$lib/server/cases/access';

export const _api: ApiRoute = {
	GET: {
		says: 'The paper of a case.',
		query: { for: 'customer, technician, or tag = a label for the key' },
		gives: { media: 'application/pdf', says: 'The paper.' }
	}
};

export async function GET({ params, url, request, locals }) {
	const row = await caseRowHere(locals.services, params.id);
	const reader = READERS.find((one) => one === url.searchParams.get('for')) ?? 'technician';
	const pdf = await locals.services.heavy.ask(
		'paper',
		{ caseId: row.id, reader },
		{ signal: request.signal }
	);
	return new Response(pdf as BodyInit, {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${row.number}-${reader}.pdf"`
		}
	});
}
