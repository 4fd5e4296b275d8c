import { outcomeIndex, type SignTable } from '../../src/lib/core/path/model';
import { wheelReaderOf } from '../measurePoints';
import { allPlaces } from '../faultPlaces';
import { isOfAxle, type Fault } from '../faults';
import { mateOf, type Position } from '../positions';
import type { VehicleType } from '../vehicles';
import { placeOfAll, type PlacedFault, type ReasonModel } from './placed';
import { libraryWeight } from './odds';
import type { OutcomeBin } from './outcomes';
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
	if (id === 'own-code') upsetBySupply(placedFaults, rows, outcomes, chance, acts);
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
		const { fault } = placedFaults[index] as PlacedFault;
		if (!acts[row] || !feeds(fault)) continue;
		for (let o = 0; o < width; o++) {
			const p = (1 - UPSET) * (chance[row * width + o] ?? 0);
			chance[row * width + o] = o === inside ? p + UPSET : p;
		}
	}
}

/** Whether a fault is in what feeds whole modules. */
const feeds = ({ link, at, effects }: Fault): boolean =>
	link === 'module-supply' &&
	(at !== 'module' || effects.some((one) => one.do === 'pin' && ['supply', 'ground'].includes(one.pin)));

/** A test that is made for a described fault finds what is not described this much more rarely. */
const AS_DESCRIBED = 0.25;
/** And more rarely still at another place than its own. */
const ELSEWHERE = AS_DESCRIBED ** 2;
/** How often a fault that nobody has described shows what no described one does. */
const STRANGE = 0.3;

/** What is not described shows a sign as the described faults of its place do on the whole, by the library's own odds. */
function asOnTheWhole(
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows'],
	width: number,
	chance: Float64Array,
	acts: Uint8Array,
	{ open, clear, place, tested }: { open: boolean; clear: readonly boolean[]; place: string; tested: boolean }
): void {
	const places = new Map<string, number>();
	for (const { fault } of placedFaults) places.set(fault.id, (places.get(fault.id) ?? 0) + 1);
	const sums = new Map<string, { total: number; mean: Float64Array; acts: boolean }>();
	for (const [row, { fault: index, share }] of rows.entries()) {
		const one = placedFaults[index] as PlacedFault;
		if (one.fault.id === NOT_DESCRIBED) continue;
		const weight = (libraryWeight(one.fault.id) / (places.get(one.fault.id) ?? 1)) * share;
		for (const like of [null, one.fault.link]) {
			const at = likeAt(one, like);
			const known = sums.get(at) ?? { total: 0, mean: new Float64Array(width), acts: false };
			sums.set(at, known);
			known.total += weight;
			known.acts ||= acts[row] === 1;
			for (let o = 0; o < width; o++)
				known.mean[o] = (known.mean[o] ?? 0) + weight * (chance[row * width + o] ?? 0);
		}
	}
	for (const [row, { fault: index, bin, like: link }] of rows.entries()) {
		const one = placedFaults[index] as PlacedFault;
		if (one.fault.id !== NOT_DESCRIBED) continue;
		// Slight, it shows at its own place alone; plain, wherever faults of its place show on the whole.
		if (bin === 'slight' && one.place !== place && one.place !== 'vehicle') continue;
		const whole = sums.get(likeAt(one, link));
		// What no described fault shows is its own.
		const strange = open && one.place === place ? STRANGE : 0;
		const isHere = one.place === place || one.place === 'vehicle';
		const like = tested ? (isHere ? AS_DESCRIBED : ELSEWHERE) : 1;
		if (!whole?.acts && strange === 0) continue;
		for (let o = 0; o < width; o++) {
			const asSound = chance[row * width + o] ?? 0;
			// What is seen clearly is what the library describes, and nothing else.
			const mean = clear[o] ? asSound : (whole?.mean[o] ?? 0) / (whole?.total ?? 1);
			const usual = whole ? like * mean + (1 - like) * asSound : asSound;
			chance[row * width + o] = (1 - strange) * usual + (o === width - 1 ? strange : 0);
		}
		if (clear.includes(true)) toOne(chance, row * width, width);
		acts[row] = 1;
	}
}

const likeAt = (one: PlacedFault, link: Fault['link'] | null) => `${placeOfAll(one)}/${link ?? ''}`;

function toOne(chance: Float64Array, from: number, width: number): void {
	const all = chance.subarray(from, from + width);
	const sum = all.reduce((a, b) => a + b, 0);
	for (const [o, p] of all.entries()) all[o] = p / sum;
}

/** Somebody who looks twice at what stays the same sees something else with this chance. */
const SEES_OTHERWISE = 0.03;

/** Two places at which a fault shows a sign so differently are not read alike. */
const APART = 0.1;

/** Whether a row shows a sign otherwise at one place than at another. */
function differs({ outcomes, chance }: SignTable, there: SignTable | null, row: number): boolean {
	const width = outcomes.length;
	if (there?.outcomes.length !== width) return true;
	let apart = 0;
	for (let o = row * width; o < (row + 1) * width; o++)
		apart += Math.abs((chance[o] ?? 0) - (there.chance[o] ?? 0)) / 2;
	return apart > APART;
}

/**
 * A sign once more: what stays shows what it showed, what comes and goes shows what it likes.
 *
 * @param isOwn whether a row is seen anew whatever was seen before
 */
function againTable(
	once: SignTable,
	key: string,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows'],
	isOwn: (row: number) => boolean
): SignTable {
	const { outcomes } = once;
	// Eyes miss and imagine anew each time.
	if (signOf(splitKey(key).sign).byEye) return { ...once, key };
	const width = outcomes.length;
	const before = outcomeIndex(once, splitKey(key).before ?? '');
	const otherwise = Math.max(SEES_OTHERWISE, signOf(splitKey(key).sign).misread);
	const sound = Float64Array.from(outcomes, (_, o) =>
		o === before ? 1 - otherwise : otherwise / (width - 1)
	);
	const chance = new Float64Array(once.chance.length);
	const acts = new Uint8Array(once.acts.length);
	for (const [row, { fault, bin }] of rows.entries()) {
		const anew = (once.acts[row] === 1 && isFickle(placedFaults[fault]?.fault, bin)) || isOwn(row);
		chance.set(anew ? once.chance.subarray(row * width, (row + 1) * width) : sound, row * width);
		acts[row] = Number(anew);
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes, good: once.good, sound, chance, acts };
}

const isFickle = (fault: Fault | undefined, bin: OutcomeBin): boolean =>
	bin === 'now-and-then' || fault?.when?.shaking !== undefined || fault?.when?.everyKm !== undefined;

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

/** A fault whatever its bin: its rows by their shares. */
function mixBins(
	faultCount: number,
	rows: ReasonModel['rows'],
	width: number,
	chance: Float64Array,
	acts: Uint8Array,
	sound: Float64Array
): void {
	const base = rows.length;
	for (const [row, { fault, share }] of rows.entries()) {
		const to = base + fault;
		if (acts[row]) acts[to] = 1;
		for (let o = 0; o < width; o++)
			chance[to * width + o] = (chance[to * width + o] ?? 0) + share * (chance[row * width + o] ?? 0);
	}
	for (let fault = 0; fault < faultCount; fault++)
		if (!acts[base + fault])
			for (let o = 0; o < width; o++) chance[(base + fault) * width + o] = sound[o] ?? 0;
}
