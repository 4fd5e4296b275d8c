import type { VehicleType } from '../../../../library';
import { signKey, type Seen } from '../../../../library/reason/signs';
import { rollingCircumferenceMm } from '../../core/tyres/rollingCircumference';
import { parseTyreSize } from '../../core/tyres/tyreSize';
import type { TyresFitted } from '../entries/tyres-fitted/payload';

/** By their sidewalls: a circumference further off than this is another size. Two to eight in a hundred are the common case. */
const OTHER_SIZE = 0.012;
/** Softer than this share of the firmest on its axle is soft. */
const SOFT = 0.75;
const BALD_MM = 1.6;

/** What the sidewalls, gauges and treads say of each wheel: each is held against the middle of all. */
export function tyreSigns(tyres: TyresFitted['tyres'], type: VehicleType): Seen {
	const known = tyres.flatMap(({ position, size, treadMm, pressureKpa }) => {
		const parsed = parseTyreSize(size);
		if (!parsed.ok || !type.wheels.some((wheel) => wheel.position === position)) return [];
		const circumferenceMm = rollingCircumferenceMm(parsed.value.diameterMm);
		return [{ position, circumferenceMm, treadMm, pressureKpa }];
	});
	const sorted = known.map(({ circumferenceMm }) => circumferenceMm).sort((a, b) => a - b);
	const middle = sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
	return Object.fromEntries(
		known.map(({ position, circumferenceMm, treadMm, pressureKpa }) => {
			const [axle] = position.split('-');
			const firmest = Math.max(
				...known.filter((one) => one.position.startsWith(`${axle}-`)).map((one) => one.pressureKpa ?? 0)
			);
			const outcome =
				Math.abs(circumferenceMm / middle - 1) > OTHER_SIZE
					? 'other-size'
					: pressureKpa !== null && pressureKpa < firmest * SOFT
						? 'soft'
						: treadMm !== null && treadMm < BALD_MM
							? 'bald'
							: 'right';
			return [signKey('tyre', position), outcome];
		})
	);
}
