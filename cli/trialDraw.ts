import { linkTypes, type VehicleType } from '../library';
import { placesFor } from '../library/faultPlaces';
import { faults } from '../library/faults';
import { systemOf, SYSTEMS, type System } from '../library/systems';
import { USUAL_DRAW, type Draw } from '../src/lib/bench/trial/trialCase';
import { WrongUsage } from './command';

/** Options of `jaldi trial` that say what vehicles are drawn. */
export const DRAW_OPTIONS = {
	draw: { type: 'string' },
	doubles: { type: 'string' },
	unknown: { type: 'string' },
	system: { type: 'string' }
} as const;

type DrawValues = Partial<Record<keyof typeof DRAW_OPTIONS, string>>;

/**
 * `--draw`, `--doubles`, `--unknown` and `--system`. Drawn uniformly, a fault comes alone unless doubles are asked for.
 *
 * @param type the vehicle that they all are; null = the shipped types
 */
export function readDraw(values: DrawValues, type: VehicleType | null): Draw {
	const by = values.draw ?? USUAL_DRAW.by;
	if (by !== 'odds' && by !== 'uniform') throw new WrongUsage(`--draw is odds or uniform, not "${by}"`);
	const doubles = readShare('doubles', values.doubles, by === 'odds' ? USUAL_DRAW.doubles : 0);
	const unknown = readShare('unknown', values.unknown, 0);
	return { by, doubles, unknown, system: readSystem(values.system, type) };
}

/** What nobody draws is not asked for as well. */
export function refuseDraw(values: DrawValues): void {
	const asked = (Object.keys(DRAW_OPTIONS) as (keyof DrawValues)[]).find(
		(name) => values[name] !== undefined
	);
	if (asked) throw new WrongUsage(`--${asked} says what is drawn, and --faults names it: one of the two`);
}

/** A number from 0 to 1. */
export function readShare(name: string, text: string | undefined, usual: number): number {
	const share = text === undefined ? usual : text.trim() === '' ? NaN : Number(text);
	if (!(share >= 0 && share <= 1)) throw new WrongUsage(`--${name} is a share from 0 to 1, not "${text}"`);
	return share;
}

function readSystem(name: string | undefined, type: VehicleType | null): System | null {
	if (name === undefined) return null;
	const system = SYSTEMS.find((one) => one === name);
	if (!system) throw new WrongUsage(`--system is ${SYSTEMS.join(', ')}, not "${name}"`);
	const can = [...faults.values()].some(
		(fault) =>
			systemOf(fault) === system &&
			(type ? [type] : linkTypes).some((one) => placesFor(fault, one).length > 0)
	);
	if (!can) throw new WrongUsage(`this vehicle can have no fault of ${system}`);
	return system;
}
