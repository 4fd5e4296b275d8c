import { caseReport } from '$lib/case/report';
import { exportBundle } from '$lib/server/bundle/exportBundle';
import { loadCheckedCase } from '$lib/server/cases/access';
import { headOf } from '$lib/server/report/head';
import { services } from '$lib/server/running';

/** The whole case as one file. */
export async function GET({ params }) {
	const { row, view } = await loadCheckedCase(params.id);
	const { photos, desk, threads, shopKeys } = services();
	const thread = await threads.read(row.id);
	const head = await headOf(row);
	const { id, typeId, nickname, plate, createdAt } = row.vehicle;
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
		{ head, report: caseReport(thread, view, row.chainBroken) },
		{ captures: desk.captures, photos },
		await shopKeys.own()
	);
	return new Response(zip as BodyInit, {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="${row.number}.zip"`
		}
	});
}
