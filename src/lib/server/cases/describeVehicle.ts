import { corrected } from '../../../../library/vehicle/correct';
import type { Described, VehicleType } from '../../../../library/vehicle/vehicleType';
import { knownFamilyAt } from '../../../../library/wheelSensors';
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
	const kept = await vehicleDescriptions.keep(description, author, because);
	return addEntry(
		services,
		{ id: entryId, caseId, kind: 'vehicle-described', payload: { description: kept, because } },
		author
	);
}

/**
 * What a round has told of a sensor stays with the type of vehicle for the next case. On this case its own entry says so
 * already; what the shop knows by now is not changed by it.
 */
export async function learnSensor(
	{ vehicleDescriptions }: Pick<Services, 'vehicleDescriptions'>,
	type: VehicleType | null,
	author: Author
): Promise<void> {
	const known = type && (await vehicleDescriptions.newest(type.id));
	if (!known) return;
	const told = known.wheels.flatMap(({ position, sensor }) => {
		const family = knownFamilyAt(type, position);
		return (sensor ?? known.sensor) === 'unknown' && family
			? [{ path: `wheels.${position}.sensor`, value: family }]
			: [];
	});
	const next = told.length > 0 ? corrected(known, told) : null;
	if (next?.ok) await vehicleDescriptions.keep(next.value, author, 'Its sensor was identified');
}
