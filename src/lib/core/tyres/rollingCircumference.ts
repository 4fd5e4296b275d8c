/** Under load a tyre rolls on less than its free circumference: by this share, unless its maker says otherwise. */
export const USUAL_LOAD_FACTOR = 0.96;

/** Depth of the pattern of a new road tyre. */
const NEW_TREAD_MM = 8;
/**
 * How much of a share of missing pressure shows in the rolling circumference: a radial's belt hardly gives, so half the
 * pressure takes about 1.5 %.
 */
const PRESSURE_SHARE = 0.03;

interface TyreState {
	/** Depth of tread left; a worn tyre is smaller by twice what is gone. */
	treadMm?: number;
	/** Pressure against the one it should have, 1 = right. */
	pressureShare?: number;
}

/**
 * Rolling circumference under load, in mm: load factor · π · diameter, the diameter less twice the worn tread, the result
 * less {@link PRESSURE_SHARE} of the missing share of pressure.
 *
 * @param diameterMm nominal
 * @param loadFactor 0.96 to 0.97 for radial tyres
 * @throws RangeError for a factor that no tyre has
 */
export function rollingCircumferenceMm(
	diameterMm: number,
	loadFactor = USUAL_LOAD_FACTOR,
	{ treadMm, pressureShare }: TyreState = {}
): number {
	if (!(loadFactor >= 0.8 && loadFactor <= 1))
		throw new RangeError(`a load factor lies between 0.8 and 1, not at ${loadFactor}`);
	const wornMm = treadMm === undefined ? 0 : Math.max(0, NEW_TREAD_MM - treadMm);
	const missing = pressureShare === undefined ? 0 : Math.max(-0.5, Math.min(1, 1 - pressureShare));
	return loadFactor * Math.PI * (diameterMm - 2 * wornMm) * (1 - PRESSURE_SHARE * missing);
}

/** Turns on a kilometre. */
export const revolutionsPerKm = (circumferenceMm: number): number => 1e6 / circumferenceMm;
