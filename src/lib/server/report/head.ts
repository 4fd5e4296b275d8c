import { unitsOf } from '../../core/units/units';
import type { CaseRow } from '../db/cases';
import type { Stores } from '../stores';
import type { ReportHead } from './parts';

/** What stands at the head of a case's papers. */
export async function headOf(
	{ settings, origin }: Pick<Stores, 'settings' | 'origin'>,
	row: CaseRow
): Promise<ReportHead> {
	return {
		shopName: await settings.read('shopName'),
		shopAddress: await settings.read('shopAddress'),
		footer: await settings.read('paperFooter'),
		logo: await settings.read('shopLogo'),
		units: unitsOf(await settings.read('units')),
		number: row.number,
		vehicleName: row.vehicleName,
		nickname: row.vehicle.nickname,
		plate: row.vehicle.plate ?? '',
		url: `${origin}/cases/${row.id}`,
		printedAt: new Date().toISOString()
	};
}
