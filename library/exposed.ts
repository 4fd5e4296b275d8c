import type { Calibration } from './calibrations';
import type { FittingSheet } from './fittingSheets';
import type { Position } from './positions';
import type { PlacedTest } from './reason/tests';
import { NO_DANGER } from './safety';
import type { ModuleType, VehicleType } from './vehicles';

/** What a step exposes on this vehicle at this place: what it says itself, and what the vehicle is and has there. */

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
	modules.filter(({ hangsOn }) => hangsOn.some(({ name, kind }) => kind !== 'segment' && name === place));

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

const BY_ACCESS: Partial<Record<string, string[]>> = {
	lifted: ['lifted'],
	wheel: ['wheel-off'],
	plug: ['corner-touched']
};
/** Hands that are at brake or hub, and not only at a wire beside them. */
const AT_BRAKE = ['wheel-off', 'brakes-apart'];

const named = (exposed: readonly string[]): string[] => {
	const all = [...new Set(exposed)];
	return all.length > 1 ? all.filter((id) => id !== NO_DANGER) : all;
};

const withMotorBrake = (exposed: readonly string[], type: VehicleType, place: string): string[] =>
	exposed.some((id) => AT_BRAKE.includes(id)) && hasMotorBrake(type, place) ? ['parking-brake-motor'] : [];

/** @param test a test of the library at a place of the vehicle */
export function exposedByTest(
	{ kind, place }: Pick<PlacedTest, 'kind' | 'place'>,
	type: VehicleType
): string[] {
	const own = [...kind.exposes, ...kind.access.flatMap((one) => BY_ACCESS[one] ?? [])];
	const touched = kind.access.length > 0 || kind.about !== 'module' ? exposedAt(type, place) : [];
	return named([...own, ...touched, ...withMotorBrake(own, type, place)]);
}

/** @param place wheel, module, or another place of the vehicle; null = the vehicle */
export function exposedBySheet(
	{ exposes }: Pick<FittingSheet, 'exposes'>,
	type: VehicleType,
	place: string | null
): string[] {
	const at = place ?? 'vehicle';
	return named([
		...exposedByVehicle(type),
		...exposes,
		...exposedAt(type, at),
		...withMotorBrake(exposes, type, at)
	]);
}

export const exposedByCalibration = (
	{ exposes }: Pick<Calibration, 'exposes'>,
	type: VehicleType,
	role: string
): string[] =>
	named([
		...exposedByVehicle(type),
		...exposes,
		...exposedAt(type, role).filter((id) => id === 'maker-only')
	]);

/** Whether anything of a test is done at a module, or at wiring of it, that its maker alone says how to work on. */
export const touchesMakersAlone = (
	{ kind, place, access }: Pick<PlacedTest, 'kind' | 'place' | 'access'>,
	type: VehicleType
): boolean =>
	(kind.access.length > 0 || !['module', 'vehicle'].includes(kind.about)
		? makersAlone(type, place) !== null
		: false) ||
	access.some(({ id }) => id.startsWith('module:') && makersAlone(type, id.slice('module:'.length)) !== null);
