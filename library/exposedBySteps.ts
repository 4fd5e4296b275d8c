import type { Calibration } from './calibrations';
import { exposedAt, exposedByVehicle, motorBrakeAt } from './exposed';
import type { FittingSheet } from './fittingSheets';
import type { PlacedTest } from './reason/tests';
import { NO_DANGER } from './safety';
import type { VehicleType } from './vehicles';

/** What a step exposes on this vehicle at this place: what it says itself, and what the vehicle is and has there. */

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

const MOTOR_BRAKE = { yes: ['parking-brake-motor'], 'not-known': ['parking-brake-unknown'], no: [] };
const withMotorBrake = (exposed: readonly string[], type: VehicleType, place: string): string[] =>
	exposed.some((id) => AT_BRAKE.includes(id)) ? MOTOR_BRAKE[motorBrakeAt(type, place)] : [];

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
