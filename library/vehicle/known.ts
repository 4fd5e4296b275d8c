import type { VehicleType } from './vehicleType';

/** What is known of a vehicle and not only usual: nothing is judged by what was assumed. */

/** Whether somebody has told what stands at a path of a description. */
export const isKnown = (type: VehicleType, path: string): boolean => !type.assumed.includes(path);

/** Teeth of the ring at a wheel; null where nobody has told, or there is no such wheel. */
export function knownTeeth(type: VehicleType | null, position: string | undefined): number | null {
	const wheel = type?.wheels.find((one) => one.position === position);
	return type && wheel && isKnown(type, `wheels.${wheel.position}.ringTeeth`) ? wheel.ringTeeth : null;
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
