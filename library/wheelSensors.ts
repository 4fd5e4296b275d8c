import { z } from 'zod';
import identificationFile from './measure/identification.json' with { type: 'json' };
import type { PlaceKind } from './repairs';
import { SENSOR_KINDS, type SensorKind } from './sensorKinds';
import type { VehicleType } from './vehicles';

/** Families, each with how likely it is; they sum to 1, the likeliest first. */
export type Families = readonly (readonly [SensorKind, number])[];

/** What is read of a vehicle here. */
interface Wheels {
	tells: VehicleType['tells'];
	wheels: readonly Pick<VehicleType['wheels'][number], 'position' | 'sensor'>[];
}

/** What is usual where nobody has looked: trade practice, not one maker's data. */
const odds = z
	.record(z.enum(['link', 'lamp', 'trailer']), z.record(z.enum(SENSOR_KINDS), z.number().positive()))
	.parse(identificationFile.odds);
const shares = (of: Record<SensorKind, number>): Families => {
	const sum = SENSOR_KINDS.reduce((all, family) => all + of[family], 0);
	return SENSOR_KINDS.map((family) => [family, of[family] / sum] as const).sort((a, b) => b[1] - a[1]);
};
const ODDS = { link: shares(odds.link), lamp: shares(odds.lamp), trailer: shares(odds.trailer) };

/** How common each family is on a vehicle of a kind, where nobody has looked. */
export const usualFamilies = (tells: VehicleType['tells'], position: string): Families =>
	ODDS[tells === 'lamp' ? 'lamp' : position.startsWith('axle') ? 'trailer' : 'link'];

const known = new Map<SensorKind, Families>(SENSOR_KINDS.map((family) => [family, [[family, 1]]]));

/** Families that the sensor of a wheel may be of; a wheel that the vehicle does not have is taken for its first one. */
export function familiesAt({ tells, wheels }: Wheels, position: string): Families {
	const wheel = wheels.find((one) => one.position === position) ?? wheels[0];
	const own = wheel && wheel.sensor !== 'unknown' ? known.get(wheel.sensor) : undefined;
	if (own) return own;
	return usualFamilies(tells, position);
}

/** The family of the sensor at a wheel; null where it has not been told. */
export function knownFamilyAt({ wheels }: Pick<Wheels, 'wheels'>, position: string): SensorKind | null {
	const sensor = wheels.find((one) => one.position === position)?.sensor;
	return sensor === undefined || sensor === 'unknown' ? null : sensor;
}

/** The family that the sensor at a wheel most likely is of. */
export const likeliestFamilyAt = (type: Wheels, position: string): SensorKind =>
	familiesAt(type, position)[0]?.[0] ?? 'two-wire';

/** Families that bear on a place: a wheel's own, and of anything else those of all its wheels together. */
export function familiesOf(type: Wheels, kind: PlaceKind, place: string): Families {
	if (kind === 'corner') return familiesAt(type, place);
	const shares = new Map<SensorKind, number>();
	for (const { position } of type.wheels)
		for (const [family, p] of familiesAt(type, position))
			shares.set(family, (shares.get(family) ?? 0) + p / type.wheels.length);
	return [...shares].sort((a, b) => b[1] - a[1]);
}

/** Those of some families that are left where others are ruled out, summing to 1; empty where none is. */
export function only(families: Families, allowed: readonly SensorKind[] | undefined): Families {
	if (!allowed) return families;
	const left = families.filter(([family]) => allowed.includes(family));
	const sum = left.reduce((all, [, p]) => all + p, 0);
	return left.map(([family, p]) => [family, p / sum] as const);
}
/** How likely it is that a sensor is of one of some families. */
export const chanceOf = (families: Families, allowed: readonly SensorKind[] | undefined): number =>
	allowed ? families.reduce((sum, [family, p]) => sum + (allowed.includes(family) ? p : 0), 0) : 1;

/** A vehicle of which the family at one wheel has been told: the wheel beside it is of the same, where nobody said otherwise. */
export function withFamilyAt(type: VehicleType, position: string, family: SensorKind): VehicleType {
	const axle = type.wheels.find((wheel) => wheel.position === position)?.axle;
	const wheels = type.wheels.map((wheel) => {
		const told = wheel.position === position || (wheel.axle === axle && wheel.sensor === 'unknown');
		return told ? { ...wheel, sensor: family } : wheel;
	});
	return { ...type, wheels };
}

/** A vehicle on which each axle of which nobody knows the sensors has some: drawn by their odds. @param random from 0 up to 1 */
export function withDrawnFamilies(type: VehicleType, random: () => number): VehicleType {
	let drawn = type;
	for (const { position, sensor } of type.wheels) {
		if (sensor !== 'unknown' || knownFamilyAt(drawn, position) !== null) continue;
		let left = random();
		const families = familiesAt(type, position);
		const found = families.find(([, p]) => (left -= p) <= 0) ?? families[0];
		if (found) drawn = withFamilyAt(drawn, position, found[0]);
	}
	return drawn;
}
