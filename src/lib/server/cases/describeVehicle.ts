import type { Described } from '../../../../library/vehicle/vehicleType';
import type { Result } from '../../core/result';
import type { Entry } from '../../case/entries/entry';
import type { Author } from '../db/threads';
import type { Services } from '../services';
import { addEntry } from './addEntry';

/**
 * Keeps a description of the shop's, and lays it on the thread of a case that is worked with it from here on.
 *
 * @param entryId made by whoever asks: sent twice, it is written once
 */
export async function describeVehicle(
	services: Services,
	{ caseId, entryId, because }: { caseId: string; entryId: string; because: string },
	description: Described,
	author: Author
): Promise<Result<Entry>> {
	const { threads, vehicleDescriptions } = services;
	const there = (await threads.read(caseId)).find(({ id }) => id === entryId);
	if (there) return { ok: true, value: there };
	const kept = await vehicleDescriptions.keep(description, author.id);
	return addEntry(
		services,
		{ id: entryId, caseId, kind: 'vehicle-described', payload: { description: kept, because } },
		author
	);
}
