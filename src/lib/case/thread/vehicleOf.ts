import { vehicleTypes, type VehicleType } from '../../../../library';
import { checkDescription } from '../../../../library/vehicle/check';
import type { Described } from '../../../../library/vehicle/vehicleType';
import { withFamilyAt } from '../../../../library/wheelSensors';
import type { Entry } from '../entries/entry';

/** A description that contradicts itself, from wherever it came, describes nothing. */
const ofDescription = new WeakMap<Described, VehicleType | null>();
function described(description: Described): VehicleType | null {
	const known = ofDescription.get(description);
	if (known !== undefined) return known;
	const checked = checkDescription(description);
	const type = checked.ok ? checked.type : null;
	ofDescription.set(description, type);
	return type;
}

/** The same description with the same sensors told is the same type, not only an equal one: much is kept by it. */
const told = new WeakMap<VehicleType, Map<string, VehicleType>>();
function withTold(type: VehicleType, entries: readonly Entry[]): VehicleType {
	let now = type;
	for (const entry of entries) {
		if (entry.kind !== 'sensor-identified') continue;
		const { position, family } = entry.payload;
		for (const wheel of type.wheels)
			if (position === null || position === wheel.position) now = withFamilyAt(now, wheel.position, family);
	}
	if (now === type) return type;
	const key = now.wheels.map(({ sensor }) => sensor).join(' ');
	const all = told.get(type) ?? new Map<string, VehicleType>();
	told.set(type, all);
	const known = all.get(key) ?? now;
	all.set(key, known);
	return known;
}

/**
 * The vehicle of this case as it is known by now: as it is described on the thread, or as its type is shipped, with what was told
 * of its sensors. Null where it is not described.
 *
 * @param thread standing entries in order
 */
export function typeOf(thread: readonly Entry[]): VehicleType | null {
	const own = thread.findLast((entry) => entry.kind === 'vehicle-described');
	const type = own && described(own.payload.description);
	if (own) return type ? withTold(type, thread) : null;
	const opened = thread.findLast((entry) => entry.kind === 'case-opened');
	const shipped = opened && vehicleTypes.get(opened.payload.typeId);
	return shipped ? withTold(shipped, thread) : null;
}

/** Who made the vehicle of this case, where its description says it. */
export const makerOf = (thread: readonly Entry[]): string | null => typeOf(thread)?.maker || null;
