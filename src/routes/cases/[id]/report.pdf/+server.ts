import { caseReport } from '$lib/case/report';
import { loadCheckedCase } from '$lib/server/cases/access';
import { headOf } from '$lib/server/report/head';
import { caseReportPdf } from '$lib/server/report/caseReportPdf';
import { services } from '$lib/server/running';

export async function GET({ params, url }) {
	const { row, thread, view } = await loadCheckedCase(params.id);
	const reader = url.searchParams.get('for') === 'customer' ? 'customer' : 'technician';
	const head = await headOf(row);
	const { photos, desk } = services();
	const stores = { photos, captures: desk.captures };
	const pdf = await caseReportPdf(reader, head, caseReport(thread, view, row.chainBroken), stores, row.id);
	return new Response(pdf as BodyInit, {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${head.number}-${reader}.pdf"`
		}
	});
}
