import { caseReport } from '../../case/report';
import { exportBundle } from '../bundle/exportBundle';
import { caseReportPdf } from '../report/caseReportPdf';
import { headOf } from '../report/head';
import { services } from '../running';
import { loadCheckedCase } from './access';

/** The case's papers as PDF. */
export async function paperOf({
	caseId,
	reader
}: {
	caseId: string;
	reader: 'customer' | 'technician';
}): Promise<Uint8Array> {
	const { row, thread, view } = await loadCheckedCase(caseId);
	const { photos, desk } = services();
	const stores = { photos, captures: desk.captures };
	return caseReportPdf(reader, await headOf(row), caseReport(thread, view, row.chainBroken), stores, caseId);
}

/** The whole case as one file. */
export async function bundleOf(caseId: string): Promise<Uint8Array> {
	const { row, thread: shown, view } = await loadCheckedCase(caseId);
	const { photos, desk, threads, shopKeys } = services();
	const thread = await threads.read(row.id);
	const head = await headOf(row);
	const { id, typeId, nickname, plate, createdAt } = row.vehicle;
	return exportBundle(
		row.id,
		thread,
		{
			shop: head.shopName,
			number: row.number,
			wanted: row.wanted,
			createdAt: thread[0]?.receivedAt ?? createdAt,
			vehicle: { id, typeId, nickname, plate }
		},
		{ head, report: caseReport(shown, view, row.chainBroken) },
		{ captures: desk.captures, photos },
		await shopKeys.own()
	);
}
