import type { Position } from './positions';
import type { ModuleType, VehicleType } from './vehicles';

/** What a vehicle exposes at a place, whatever is done there. */

const isMakersAlone = ({ work }: ModuleType) => work === 'maker-procedure-only';

/**
 * The module whose maker alone says how it is worked on, where a place is that module, or wiring of nobody else but such
 * modules. Null for any other place.
 */
export function makersAlone(type: VehicleType, place: string): ModuleType | null {
	const own = type.modules.find(({ role }) => role === place);
	if (own) return isMakersAlone(own) ? own : null;
	const hanging = hangingOn(type, place);
	return hanging.length > 0 && hanging.every(isMakersAlone) ? (hanging[0] ?? null) : null;
}

/** Modules that hang on a fuse, ground point or splice. */
const hangingOn = ({ modules }: VehicleType, place: string): ModuleType[] =>
	modules.filter(({ suppliedBy }) =>
		suppliedBy.some(({ name, kind }) => kind !== 'segment' && name === place)
	);

/** What a place exposes, whatever is done at it. */
export function exposedAt(type: VehicleType, place: string): string[] {
	if (makersAlone(type, place)) return ['maker-only', 'restraint-near'];
	const module = type.modules.find(({ role }) => role === place);
	if (module?.near.includes('steering-wheel-airbag')) return ['restraint-behind-wheel'];
	// What feeds the restraint module too is near its circuits.
	return hangingOn(type, place).some(isMakersAlone) ? ['restraint-near'] : [];
}

/** What the vehicle exposes at every station. */
export const exposedByVehicle = ({ highVoltage }: Pick<VehicleType, 'highVoltage'>): string[] =>
	highVoltage ? ['high-voltage'] : [];

/** Whether a motor clamps the brake of this wheel. */
export const hasMotorBrake = ({ parkingBrake, wheels }: VehicleType, position: string): boolean =>
	parkingBrake.by === 'motor' &&
	wheels.some(
		(wheel) => wheel.position === (position as Position) && parkingBrake.axles.includes(wheel.axle)
	);
