import type { Fault } from '../faults';

/**
 * What makes a fault that comes and goes show itself beside a wheel that turns: warm air at it, its steering turned from lock to
 * lock, its wheel run in gear. Of a fault with a `when` the chance that it then shows follows from that; of any other, warm air
 * and steering show what water would, and a run in gear no more.
 */

export const PROVOKED = ['warm', 'lock', 'in-gear'] as const;
export type Provoked = (typeof PROVOKED)[number];
export const isProvoked = (sign: string): sign is Provoked => PROVOKED.includes(sign as Provoked);
/** The sign whose counted chances stand for a fault that is there whatever is done. */
export const WHATEVER_IS_DONE = 'spray';

/** Warm air at a sensor for a minute, °C. */
export const HOT_AIR_C = 70;
/** The steering wheel each way, in degrees. */
export const LOCK_DEG = 400;
/** Driven wheels on stands, at a walking pace. */
export const IN_GEAR_KMH = 7;
export const IN_GEAR_S = 180;

/** What the wheel turns meanwhile. */
const TURNED_KM: Record<Provoked, number> = {
	warm: 0.15,
	lock: 0.1,
	'in-gear': (IN_GEAR_KMH * IN_GEAR_S) / 3600
};
/** What needs just this, and shows. */
const SHOWS = 0.9;
/** Seen though nothing happened. */
const IMAGINED = 0.03;
/** An even floor shakes nothing; an engine in gear a little. */
const SHAKEN: Record<Provoked, number> = { warm: 0.03, lock: 0.03, 'in-gear': 0.05 };

/**
 * Chance that a value which is there changes while a wheel is provoked, under a fault of its circuit; null where water shows the
 * same.
 */
export function provokedChance(way: Provoked, { when, link }: Pick<Fault, 'when' | 'link'>): number | null {
	if (!when) return null;
	if (when.aboveC !== undefined) return way === 'warm' ? SHOWS : IMAGINED;
	if (when.steeringDeg !== undefined) return way === 'lock' ? SHOWS : IMAGINED;
	if (when.wet !== undefined) return IMAGINED;
	// What goes by the road's kilometres does not know a wheel that turns in the air; a sensor does.
	if (when.everyKm !== undefined)
		return link === 'sensor'
			? Math.max(IMAGINED, SHOWS * (1 - Math.exp(-TURNED_KM[way] / when.everyKm)))
			: IMAGINED;
	if (when.shaking !== undefined) return SHAKEN[way];
	return null;
}
