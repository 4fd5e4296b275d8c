import type { VehicleType } from '../../../../library';
import { signKey, type Seen } from '../../../../library/reason/signs';
import { knownCircumferenceM } from '../../../../library/vehicle/known';
import { rollingCircumferenceMm } from '../../core/tyres/rollingCircumference';
import { parseTyreSize } from '../../core/tyres/tyreSize';
import type { TyresFitted } from '../entries/tyres-fitted/payload';

/** By their sidewalls: a circumference further off than this is another size. Two to eight in a hundred are the common case. */
const OTHER_SIZE = 0.012;
/** A vehicle's own circumference is rolled, or coded, and not calculated from a sidewall: only so far off it says something. */
const OFF_ITS_OWN = 0.025;
/** Softer than this share of the firmest on its axle is soft. */
const SOFT = 0.75;
const BALD_MM = 1.6;

interface Fitted {
	position: string;
	axle: string;
	circumferenceMm: number;
	/** What it should have, and how far off still counts as that; null where nobody has told. */
	should: { circumferenceMm: number; within: number } | null;
	treadMm: number | null;
	pressureKpa: number | null;
}

/**
 * What the sidewalls, gauges and treads say of each wheel. A size is right or another one by the placard, or by the vehicle's own
 * circumference where somebody has told it. Without either, one wheel that differs from all others is another size; two axles
 * that differ do not say which is wrong.
 */
export function tyreSigns({ tyres, placard = [] }: TyresFitted, type: VehicleType): Seen {
	const fitted = tyres.flatMap((tyre): Fitted[] => {
		const { position, treadMm, pressureKpa } = tyre;
		const circumferenceMm = circumferenceOf(tyre.size);
		const wheel = type.wheels.find((one) => one.position === position);
		if (circumferenceMm === null || !wheel) return [];
		const told = placard.find(({ axle }) => axle === wheel.axle);
		const [axle = ''] = position.split('-');
		return [
			{
				position,
				axle,
				circumferenceMm,
				should: shouldHave(told?.size, type, position),
				treadMm,
				pressureKpa
			}
		];
	});
	const differing = sizesOf(fitted);
	const seen: Seen = {};
	if (fitted.length > 1) seen[signKey('tyre-axles', 'vehicle')] = differing === 'axles' ? 'differ' : 'same';
	for (const one of fitted) {
		const outcome = outcomeOf(one, fitted, differing);
		if (outcome !== null) seen[signKey('tyre', one.position)] = outcome;
	}
	return seen;
}

function circumferenceOf(size: string): number | null {
	const parsed = parseTyreSize(size);
	return parsed.ok ? rollingCircumferenceMm(parsed.value.diameterMm) : null;
}

function shouldHave(placard: string | undefined, type: VehicleType, position: string): Fitted['should'] {
	const told = placard === undefined ? null : circumferenceOf(placard);
	if (told !== null) return { circumferenceMm: told, within: OTHER_SIZE };
	const ownM = knownCircumferenceM(type, position);
	return ownM === null ? null : { circumferenceMm: ownM * 1000, within: OFF_ITS_OWN };
}

const isOff = (one: Fitted): boolean =>
	one.should !== null && Math.abs(one.circumferenceMm / one.should.circumferenceMm - 1) > one.should.within;

/** `axles`: axles differ and each agrees in itself, and what is right is not told; `single`: one wheel differs from the rest. */
function sizesOf(fitted: readonly Fitted[]): 'same' | 'axles' | 'single' | 'told' {
	const apart = (a: Fitted, b: Fitted) => Math.abs(a.circumferenceMm / b.circumferenceMm - 1) > OTHER_SIZE;
	const differ = fitted.some((a) => fitted.some((b) => apart(a, b)));
	const off = fitted.filter(isOff).length;
	// A whole set that is off the vehicle's own circumference is another variant of it, and no fault.
	const tells = byPlacard(fitted) || (off > 0 && off < fitted.length);
	if (fitted.every(({ should }) => should !== null) && tells) return 'told';
	if (!differ) return 'same';
	const within = fitted.every((a) => fitted.every((b) => a.axle !== b.axle || !apart(a, b)));
	return within ? 'axles' : 'single';
}

const byPlacard = (fitted: readonly Fitted[]): boolean =>
	fitted.every(({ should }) => should?.within === OTHER_SIZE);

function outcomeOf(
	one: Fitted,
	all: readonly Fitted[],
	differing: ReturnType<typeof sizesOf>
): string | null {
	const { axle, treadMm, pressureKpa, circumferenceMm } = one;
	const firmest = Math.max(...all.map((other) => (other.axle === axle ? (other.pressureKpa ?? 0) : 0)));
	const middle = middleOf(all.map((other) => other.circumferenceMm));
	const other =
		differing === 'told'
			? isOff(one)
			: differing === 'single' && Math.abs(circumferenceMm / middle - 1) > OTHER_SIZE;
	if (other) return 'other-size';
	if (pressureKpa !== null && pressureKpa < firmest * SOFT) return 'soft';
	if (treadMm !== null && treadMm < BALD_MM) return 'bald';
	return differing === 'axles' ? null : 'right';
}

function middleOf(list: readonly number[]): number {
	const sorted = [...list].sort((a, b) => a - b);
	return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
}

/** Whether sidewalls contradict the placard, or each other where no placard was read; null where nothing does. */
export function oddTyres({ tyres, placard = [] }: TyresFitted): 'placard' | 'each-other' | null {
	const sizes = tyres.flatMap(({ size }) => circumferenceOf(size) ?? []);
	const differ = (list: readonly number[]) =>
		list.some((a) => list.some((b) => Math.abs(a / b - 1) > OTHER_SIZE));
	if (placard.length === 0) return differ(sizes) ? 'each-other' : null;
	const should = placard.flatMap(({ size }) => circumferenceOf(size) ?? []);
	// Without the vehicle nobody knows which axle a wheel is of: each has to be one of those that belong on it.
	return sizes.some((size) => !should.some((one) => !differ([one, size]))) ? 'placard' : null;
}
