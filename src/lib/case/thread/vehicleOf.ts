import { vehicleTypes, type VehicleType } from '../../../../library';
import type { Entry } from '../entries/entry';

/** The vehicle of this case as it is described, null where its type is not. Its thread says which it is. */
export function typeOf(thread: readonly Entry[]): VehicleType | null {
	const opened = thread.findLast((entry) => entry.kind === 'case-opened');
	return (opened && vehicleTypes.get(opened.payload.typeId)) ?? null;
}

/** Who made the vehicle of this case, where its type is described. */
export const makerOf = (thread: readonly Entry[]): string | null => typeOf(thread)?.maker ?? null;
