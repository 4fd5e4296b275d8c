import type { Fault } from '../faults';
import type { Link } from '../links';
import { signKey, type SignKey } from './signs';

/**
 * Parts that change places: what goes with a part is in the part. The chances follow from where the fault sits, by a rule; a contact
 * that is made anew may be good for a while, and so may what comes and goes.
 */

export const SWAPPED = ['sensors', 'wheels', 'module'] as const;
export type Swapped = (typeof SWAPPED)[number];
export const SWAP_OUTCOMES = ['moved', 'stayed', 'gone'] as const;
export type SwapOutcome = (typeof SWAP_OUTCOMES)[number];

const SIGN = 'swap-';
export const isSwap = (sign: string): boolean => sign.startsWith(SIGN);
export const swapKey = (what: Swapped, position: string): SignKey => signKey(`${SIGN}${what}`, position);
export const isSwapSight = (sign: string, outcome: string): boolean =>
	SWAPPED.some((what) => sign === `${SIGN}${what}`) && (SWAP_OUTCOMES as readonly string[]).includes(outcome);

type Chances = Record<SwapOutcome, number>;
const WITH_PART: Chances = { moved: 0.92, stayed: 0.03, gone: 0.05 };
/** A module that was changed for a good one takes its fault with it, and the vehicle has none. */
const TAKEN_OUT: Chances = { moved: 0.02, stayed: 0.05, gone: 0.93 };
const STAYS: Chances = { moved: 0.02, stayed: 0.93, gone: 0.05 };
/** A plug that was opened, and a sensor that was set anew. */
const REMADE: Chances = { moved: 0.05, stayed: 0.55, gone: 0.4 };
/** Of what comes and goes, how often it is just not there. */
const NOT_NOW = 0.4;
/** Where nothing is wrong there is nothing to go anywhere. */
const NOTHING: Chances = { moved: 0.02, stayed: 0.08, gone: 0.9 };

const OWN_PART: Record<'sensors' | 'wheels', readonly Link[]> = { sensors: ['sensor'], wheels: ['tyre'] };
const TOUCHED: Record<'sensors' | 'wheels', readonly Link[]> = {
	sensors: ['gap', 'sensor-connector'],
	wheels: []
};

/** A fault as a swap meets it. */
interface Met {
	fault: Pick<Fault, 'link' | 'when' | 'curedBy'>;
	/** Whether it sits at the wheel that is suspected; of a module, whether it is in the module or at its wheel. */
	here: boolean;
}

/** Chance of an outcome of a swap. @param met null = nothing is wrong */
export function swapChance(sign: string, outcome: string, met: Met | null): number {
	const what = sign.slice(SIGN.length) as Swapped;
	const chances = met === null ? NOTHING : ofFault(what, met);
	const p = chances[outcome as SwapOutcome];
	if (!met?.fault.when) return p;
	return outcome === 'gone' ? NOT_NOW + (1 - NOT_NOW) * p : (1 - NOT_NOW) * p;
}

function ofFault(what: Swapped, { fault, here }: Met): Chances {
	if (!here) return STAYS;
	if (what === 'module')
		return fault.curedBy.some((repair) => MODULE_REPAIRS.has(repair)) ? TAKEN_OUT : STAYS;
	if (OWN_PART[what].includes(fault.link)) return WITH_PART;
	return TOUCHED[what].includes(fault.link) ? REMADE : STAYS;
}

/** What is put right by another module. */
const MODULE_REPAIRS: ReadonlySet<string> = new Set(['renew-module', 'renew-unit']);
