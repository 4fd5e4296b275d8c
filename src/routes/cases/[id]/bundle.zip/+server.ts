import { caseReport } from '$lib/case/report';
import { exportBundle } from '$lib/server/bundle/exportBundle';
import { loadCase } from '$lib/server/cases/access';
import { headOf } from '$lib/server/report/head';
import { services } from '$lib/server/running';

/** The whole case as one file. */
export async function GET({ params }) {
	const { row, thread, view } = await loadCase(params.id);
	const head = await headOf(row);
	const { id, typeId, nickname, plate, createdAt } = row.vehicle;
	const { photos, desk } = services();
	const zip = await exportBundle(
		row.id,
		thread,
		{
			shop: head.shopName,
			number: row.number,
			wanted: row.wanted,
			createdAt: thread[0]?.receivedAt ?? createdAt,
			vehicle: { id, typeId, nickname, plate }
		},
		{ head, report: caseReport(thread, view) },
		{ captures: desk.captures, photos }
	);
	return new Response(zip as BodyInit, {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="${row.number}.zip"`
		}
	});
}
