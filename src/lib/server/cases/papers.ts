import { latest } from '../../case/thread/thread';
import { caseReport } from '../../case/paper/report';
import { exportBundle } from '../bundle/exportBundle';
import { caseReportPdf } from '../report/caseReportPdf';
import type { Reader } from '../report/readers';
import { headOf } from '../report/head';
import type { Stores } from '../stores';
import { loadCheckedCase } from './access';

/** The case's papers as PDF. */
export async function paperOf(
	stores: Stores,
	{ caseId, reader }: { caseId: string; reader: Reader }
): Promise<Uint8Array> {
	const { row, thread, view } = await loadCheckedCase(stores, caseId);
	const customerId = latest(view.entries, 'customer')?.payload.customer ?? null;
	const customer = customerId === null ? null : await stores.customers.find(customerId);
	return caseReportPdf(
		reader,
		{
			...(await headOf(stores, row)),
			...(reader === 'customer' && customer ? { customer: customer.name } : {})
		},
		caseReport(thread, view, row.chainBroken),
		stores,
		caseId
	);
}

/** The whole case as one file. */
export async function bundleOf(stores: Stores, caseId: string): Promise<Uint8Array> {
	const { row, thread: shown, view } = await loadCheckedCase(stores, caseId);
	const thread = await stores.threads.read(row.id);
	const head = await headOf(stores, row);
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
		stores,
		await stores.shopKeys.own()
	);
}
