import type { SignTable } from '../../src/lib/core/path/model';
import { wheelReaderOf } from '../measurePoints';
import { allPlaces } from '../faultPlaces';
import { isOfAxle } from '../faults';
import { mateOf, type Position } from '../positions';
import type { VehicleType } from '../vehicles';
import { mixBins } from './mixBins';
import { asOnTheWhole } from './onTheWhole';
import type { PlacedFault, ReasonModel } from './placed';
import { againTable, differs } from './readAgain';
import { NOT_DESCRIBED } from './notDescribed';
import {
	AFTER_REPLACING,
	AIR,
	airChance,
	LEVEL_OUTCOMES,
	levelChance,
	mayProve,
	replacedOf,
	SEARCH_OUTCOMES,
	searchChance,
	type Air
} from './ruledSigns';
import { INTERNAL } from './codeSigns';
import { isProvoked, provokedChance, WHATEVER_IS_DONE, type Provoked } from './provoked';
import { isSwap, SWAP_OUTCOMES, swapChance } from './swaps';
import { faultClass } from './relations';
import { showing } from './showing';
import { sharedPlugsOf } from '../sharedPlugs';
import { isClearSight } from './sights';
import { signKey, signOf, splitKey } from './signs';
import { TRUE_SPEED, TRUE_SPEED_OUTCOMES, trueSpeedChance } from './trueSpeed';

/** Chances of a sign under every fault of a vehicle; null where the vehicle has no such place. */
export function signTable(
	key: string,
	type: VehicleType,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows']
): SignTable | null {
	const { sign: id, place, before, beforeAt } = splitKey(key);
	if (before !== null) {
		const once = signTable(signKey(id, place), type, placedFaults, rows);
		if (beforeAt === null) return once && againTable(once, key, placedFaults, rows, () => false);
		const there = signTable(signKey(id, beforeAt), type, placedFaults, rows);
		return once && againTable(once, key, placedFaults, rows, (row) => differs(once, there, row));
	}
	if (isProvoked(id)) return provokedTable(id, place, type, placedFaults, rows);
	const rule = ruleOf(id, place, type);
	if (rule) return ruledTable(key, rule, placedFaults, rows);
	const sign = signOf(id);
	if (sign.toldBy !== undefined) return null;
	if (!allPlaces(sign.about, type).includes(place)) return null;
	const { outcomes, sound, of } = showing(sign, place, type);
	const width = outcomes.length;
	const chance = new Float64Array((rows.length + placedFaults.length) * width);
	const acts = new Uint8Array(rows.length + placedFaults.length);
	for (const [row, { fault: index, bin }] of rows.entries()) {
		const placed = placedFaults[index] as PlacedFault;
		const shown = placed.fault.id === NOT_DESCRIBED ? null : of(placed, bin);
		chance.set(shown ?? sound, row * width);
		acts[row] = Number(shown !== null);
	}
	if (id === 'own-code') upsetBySupply(type, placedFaults, rows, outcomes, chance, acts);
	asOnTheWhole(placedFaults, rows, width, chance, acts, {
		open: sign.open,
		// What a module says of its inside is inside it, and described.
		clear: outcomes.map(
			(outcome) => isClearSight(sign, outcome) || (id === 'own-code' && outcome === INTERNAL)
		),
		place,
		tested: mayProve(key, 'bad')
	});
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes: [...outcomes], good: outcomes.indexOf(sign.good), sound, chance, acts };
}

/** A module that is fed badly may take what it sees for a fault inside. No bench does that, and vehicles do. */
const UPSET = 0.05;

function upsetBySupply(
	type: VehicleType,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows'],
	outcomes: readonly string[],
	chance: Float64Array,
	acts: Uint8Array
): void {
	const width = outcomes.length;
	const inside = outcomes.indexOf(INTERNAL);
	if (inside < 0) return;
	for (const [row, { fault: index }] of rows.entries()) {
		if (!acts[row] || !feedsModules(placedFaults[index] as PlacedFault, type)) continue;
		for (let o = 0; o < width; o++) {
			const p = (1 - UPSET) * (chance[row * width + o] ?? 0);
			chance[row * width + o] = o === inside ? p + UPSET : p;
		}
	}
}

/** Whether a fault is in what feeds whole modules. */
const feedsModules = ({ fault: { link, at, effects }, place }: PlacedFault, type: VehicleType): boolean =>
	link === 'module-supply' &&
	(at === 'module'
		? effects.some((one) => one.do === 'pin' && ['supply', 'ground'].includes(one.pin))
		: faultClass(at, place, type) === at);

/** Whether a fault is in the circuit of a wheel: of its own, of a plug that it shares, or at its cavity of the module's plug. */
function isOnTheWay({ fault, place: at }: PlacedFault, wheel: string, type: VehicleType): boolean {
	if (fault.at === 'corner') return at === wheel || (isOfAxle(fault) && mateOf(at as Position) === wheel);
	if (fault.at === 'plug')
		return sharedPlugsOf(type).some(({ name, wheels }) => name === at && wheels.some((one) => one === wheel));
	return false;
}

/** What a sign shows by a rule about the fault: the same in every bin; null = nothing is wrong. */
interface Rule {
	outcomes: string[];
	chance: (one: PlacedFault | null, outcome: string) => number;
}

function ruleOf(id: string, place: string, type: VehicleType): Rule | null {
	const here = (one: PlacedFault | null) => (one !== null && isOnTheWay(one, place, type) ? one.fault : null);
	if (id === 'search')
		return {
			outcomes: [...SEARCH_OUTCOMES],
			chance: (one, outcome) => searchChance(outcome, here(one)?.link ?? null)
		};
	if (isSwap(id))
		return {
			outcomes: [...SWAP_OUTCOMES],
			chance: (one, outcome) =>
				swapChance(
					id,
					outcome,
					one && { fault: one.fault, here: here(one) !== null || one.place === wheelReaderOf(type)?.role }
				)
		};
	if (id === 'level')
		return {
			outcomes: [...LEVEL_OUTCOMES],
			chance: (one, outcome) => levelChance(outcome, here(one)?.link ?? null, here(one)?.when !== undefined)
		};
	if (id === TRUE_SPEED)
		return {
			outcomes: [...TRUE_SPEED_OUTCOMES],
			chance: (one, outcome) =>
				trueSpeedChance(outcome, one?.place === wheelReaderOf(type)?.role ? (one?.fault ?? null) : here(one))
		};
	if (id === 'wheel-set-air')
		return {
			outcomes: [...AIR],
			chance: (one, outcome) => airChance(outcome as Air, here(one)?.when?.aboveC !== undefined)
		};
	const replaced = replacedOf(id);
	if (!replaced) return null;
	return {
		outcomes: ['helped', 'did-not-help'],
		chance: (one, outcome) => {
			// The wrong part fitted by others is itself a fault, and not one that they cured.
			const there = place === 'vehicle' ? (one?.fault ?? null) : here(one);
			const tried = there !== null && there.curedBy.includes(replaced.repair) && !there.madeByUs;
			const stays = tried ? 0.5 * AFTER_REPLACING[replaced.worth] : 0.5;
			return outcome === 'did-not-help' ? stays : 1 - stays;
		}
	};
}

/** Of a sign that goes by a rule. */
function ruledTable(
	key: string,
	{ outcomes, chance }: Rule,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows']
): SignTable {
	const of = (one: PlacedFault | null) => outcomes.map((outcome) => chance(one, outcome));
	const sound = Float64Array.from(of(null));
	const all = [...rows.map(({ fault }) => placedFaults[fault] ?? null), ...placedFaults];
	return {
		key,
		outcomes,
		good: 0,
		sound,
		chance: Float64Array.from(all.flatMap(of)),
		acts: Uint8Array.from(all, (one) => Number(of(one).some((p, o) => p !== sound[o])))
	};
}

/** A wheel that is provoked: what comes and goes there shows by a rule; all else as if water were sprayed on it. */
function provokedTable(
	way: Provoked,
	place: string,
	type: VehicleType,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows']
): SignTable | null {
	const like = signTable(signKey(WHATEVER_IS_DONE, place), type, placedFaults, rows);
	if (!like) return null;
	const { outcomes, sound, good } = like;
	const width = outcomes.length;
	const [changes, dead] = [outcomes.indexOf('changes'), outcomes.indexOf('dead')];
	const chance = Float64Array.from(like.chance);
	const acts = Uint8Array.from(like.acts);
	chance.fill(0, rows.length * width);
	acts.fill(0, rows.length);
	for (const [row, { fault: index }] of rows.entries()) {
		const one = placedFaults[index] as PlacedFault;
		const p = isOnTheWay(one, place, type) ? provokedChance(way, one.fault) : null;
		if (p === null) continue;
		// Where it is away already there is nothing to watch, whatever is done.
		const alive = 1 - (like.chance[row * width + dead] ?? 0);
		chance[row * width + changes] = alive * p;
		chance[row * width + good] = alive * (1 - p);
		acts[row] = 1;
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { ...like, key: signKey(way, place), chance, acts };
}
