import type { VehicleType } from './vehicleType';

/** What is known of a vehicle and not only usual: nothing is judged by what was assumed. */

/** Whether somebody has told what stands at a path of a description. */
export const isKnown = (type: VehicleType, path: string): boolean => !type.assumed.includes(path);

/** Where in a description the teeth of a wheel's ring stand; null where there is no such wheel. */
export const ringPathOf = ({ wheels }: Pick<VehicleType, 'wheels'>, position: string): string | null =>
	wheels.some((wheel) => wheel.position === position) ? `wheels.${position}.ringTeeth` : null;

/** Teeth of the ring at a wheel; null where nobody has told, or there is no such wheel. */
export function knownTeeth(type: VehicleType | null, position: string | undefined): number | null {
	const wheel = type?.wheels.find((one) => one.position === position);
	const path = type && wheel && ringPathOf(type, wheel.position);
	return type && wheel && path && isKnown(type, path) ? wheel.ringTeeth : null;
}

/** Rolling circumference of a wheel in metres; null where nobody has told. */
export function knownCircumferenceM(type: VehicleType | null, position: string | undefined): number | null {
	const wheel = type?.wheels.find((one) => one.position === position);
	return type && wheel && isKnown(type, `wheels.${wheel.position}.circumferenceM`)
		? wheel.circumferenceM
		: null;
}

/** The resistor across which a module sees the current of a two-wire sensor; null where nobody has told. */
export const knownSenseOhms = (type: VehicleType | null): number | null =>
	type && isKnown(type, 'senseResistorOhms') ? type.senseResistorOhms : null;

/**
 * Where in a description it stands how long it takes to reach a place that is only assumed; null where somebody has told, or it is
 * a matter of the trade and not of the vehicle.
 *
 * @param plugs names of the plugs that it could be
 */
export function assumedAccess(
	{ assumed }: Pick<VehicleType, 'assumed'>,
	place: { module: string } | { plugs: readonly string[] }
): string | null {
	const among = (path: string, whole: string) => assumed.includes(path) || assumed.includes(whole);
	if ('module' in place) {
		const path = `modules.${place.module}.accessMin`;
		return among(path, `modules.${place.module}`) ? path : null;
	}
	const plug = place.plugs.find((name) => among(`harness.plugs.${name}.accessMin`, `harness.plugs.${name}`));
	return plug === undefined ? null : `harness.plugs.${plug}.accessMin`;
}

/**
 * What of a description is still only assumed. By what a case knows a module is of no account where somebody has told where it
 * answers.
 */
export const stillAssumed = ({ assumed, modules }: Pick<VehicleType, 'assumed' | 'modules'>): string[] => {
	const told = new Set(
		modules.flatMap(({ role, doip, can }) => ((doip ?? can) === undefined ? [] : [`modules.${role}.address`]))
	);
	return assumed.filter((path) => !told.has(path));
};
