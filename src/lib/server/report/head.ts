import type { CaseRow } from '../db/cases';
import { services } from '../running';
import type { ReportHead } from './parts';

/** What stands at the head of a case's papers. */
export async function headOf(row: CaseRow): Promise<ReportHead> {
	const { settings, origin } = services();
	return {
		shopName: await settings.read('shopName'),
		number: row.number,
		vehicleName: row.vehicleName,
		nickname: row.vehicle.nickname,
		plate: row.vehicle.plate ?? '',
		url: `${origin}/cases/${row.id}`,
		printedAt: new Date().toISOString()
	};
}
