import { page } from '$app/state';
import {
	fromUnit,
	inUnits,
	kindOf,
	moreDigits,
	quantity,
	SI,
	toUnit,
	type Kind,
	type Units
} from '../core/units/units';

/** The units of whoever looks. Read where it is shown: it changes with them. */
export const unitsHere = (): Units => (page.data.units as Units | undefined) ?? SI;

/** A kept value with its unit. @param digits of the kept value */
export const shown = (value: number, kind: Kind, digits = 0): string =>
	quantity(value, kind, unitsHere(), digits);
/** The value alone, as a number. */
export const shownValue = (value: number, kind: Kind): number => toUnit(value, unitsHere()[kind]);
export const typedValue = (value: number, kind: Kind): number => fromUnit(value, unitsHere()[kind]);
export const unitOf = (kind: Kind): string => unitsHere()[kind];
export const digitsOf = (kind: Kind, digits = 0): number => digits + moreDigits(unitsHere()[kind]);

/** What a signal tells, in the unit of whoever looks at it. @param kept the signal's own unit */
export const signalValue = (value: number, kept: string): number => {
	const kind = kindOf(kept);
	return kind ? shownValue(value, kind) : value;
};
export const signalUnit = (kept: string): string => {
	const kind = kindOf(kept);
	return kind ? unitOf(kind) : kept;
};

/** A sentence of ours, in the units of whoever reads it. Not for what somebody said: that stands as it was said. */
export const said = (sentence: string): string => inUnits(sentence, unitsHere());
