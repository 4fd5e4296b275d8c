import {
	outcomeIndex,
	type ModelFault,
	type ModelRepair,
	type PathModel,
	type SignTable
} from '../../src/lib/core/path/model';
import { allPlaces, placesFor } from '../faultPlaces';
import { faults, isOfAxle, mayComeAndGo, type Fault } from '../faults';
import { mateOf, type Position } from '../positions';
import { repairs } from '../repairs';
import type { VehicleType } from '../vehicles';
import { OUTCOME_BINS, countsOf, type OutcomeBin } from './outcomes';
import priorsFile from './priors.json' with { type: 'json' };
import { faultClass, relationOf, type Relation } from './relations';
import { AFTER_REPLACING, SEARCH_OUTCOMES, searchChance } from './ruledSigns';
import { signKey, signOf, splitKey, type Sign } from './signs';

/** A fault of the library at a place of a vehicle. */
export interface PlacedFault extends ModelFault {
	fault: Fault;
	place: string;
}

/** A repair of the library at a place. */
export interface PlacedRepair extends ModelRepair {
	kind: string;
	name: string;
	place: string;
}

export interface ReasonModel extends PathModel {
	type: VehicleType;
	faults: readonly PlacedFault[];
	rows: readonly { fault: number; share: number; bin: OutcomeBin }[];
	repairs: readonly PlacedRepair[];
}

/** How often one fault is met against another: the library's odds, times what a shop has learned. */
export type Weights = (fault: string) => number;
/** A shop's own minutes and price of a repair; null = the library's. */
export type RepairCosts = (kind: string) => { minutes: number; price: number } | null;
const shippedWeights: Record<string, number> = priorsFile.weights;
export const libraryWeight: Weights = (fault) => shippedWeights[fault] ?? priorsFile.usual;

const BIN_SHARE: Record<OutcomeBin, number> = { slight: 0.4, plain: 0.45, 'now-and-then': 0.15 };
/** Of what stays as it is. */
const HARDLY_EVER = 0.01;
/** Weight of what is usual against what was counted, in counts. */
const SMOOTHING = 1;
/** What is usual: the same fault in its other bins, then a sound vehicle, then anything. */
const USUAL = { pooled: 0.65, sound: 0.25, any: 0.1 };

/**
 * Everything that can be wrong with a vehicle of a type, what can be seen of it, and how likely: generated from its network
 * description, its sensors and the library's counted outcomes.
 */
export function reasonModel(
	type: VehicleType,
	weight: Weights = libraryWeight,
	costs: RepairCosts = () => null
): ReasonModel {
	const placedRepairs: PlacedRepair[] = [];
	const repairIndex = new Map<string, number>();
	const repairAt = (kind: string, place: string): number => {
		const id = signKey(kind, place);
		const known = repairIndex.get(id);
		if (known !== undefined) return known;
		const { name, minutes, price, part } = repairs.get(kind) ?? {
			name: kind,
			minutes: 60,
			price: 0,
			part: false
		};
		repairIndex.set(id, placedRepairs.length);
		const own = costs(kind) ?? { minutes, price };
		return placedRepairs.push({ id, kind, name, place, part, ...own }) - 1;
	};
	const placed = [...faults.values()].flatMap((fault) => {
		const places = placesFor(fault, type);
		return places.map((place) => ({ fault, place, weight: weight(fault.id) / Math.sqrt(places.length) }));
	});
	const total = placed.reduce((sum, one) => sum + one.weight, 0);
	const modelFaults = placed.map(({ fault, place, weight: own }): PlacedFault => ({
		id: signKey(fault.id, place),
		fault,
		place,
		prior: own / total,
		curedBy: fault.curedBy.flatMap((repair) =>
			(isOfAxle(fault) ? [place, mateOf(place as Position)] : [place]).map((at) => repairAt(repair, at))
		)
	}));
	const rows = modelFaults.flatMap(({ fault, place }, index) => {
		const bins = binsOf(fault, place, type);
		const shareOf = (bin: OutcomeBin) =>
			bin === 'now-and-then' && !mayComeAndGo(fault) ? HARDLY_EVER : BIN_SHARE[bin];
		const all = bins.reduce((sum, bin) => sum + shareOf(bin), 0);
		return bins.map((bin) => ({ fault: index, bin, share: shareOf(bin) / all }));
	});
	const tables = tablesOf(type);
	return {
		type,
		faults: modelFaults,
		rows,
		repairs: placedRepairs,
		nothing: priorsFile.nothing,
		pairs: priorsFile.pairs,
		sign(key) {
			let found = tables.get(key);
			if (found === undefined) {
				found = signTable(key, type, modelFaults, rows);
				tables.set(key, found);
			}
			return found;
		}
	};
}

const tablesByType = new WeakMap<VehicleType, Map<string, SignTable | null>>();

/** What is seen under which fault has nothing to do with a shop's odds and prices: the same tables for all of them. */
function tablesOf(type: VehicleType): Map<string, SignTable | null> {
	const known = tablesByType.get(type) ?? new Map<string, SignTable | null>();
	tablesByType.set(type, known);
	return known;
}

const ofFault = (fault: Fault, place: string, type: VehicleType, bin: OutcomeBin) =>
	`${fault.id}/${faultClass(fault.at, place, type)}/${bin}`;

/** Bins of a fault that were counted; at least one. */
function binsOf(fault: Fault, place: string, type: VehicleType): OutcomeBin[] {
	const counted = OUTCOME_BINS.filter((bin) => countsOf.bins.has(ofFault(fault, place, type, bin)));
	return counted.length > 0 ? counted : ['plain'];
}

function signTable(
	key: string,
	type: VehicleType,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows']
): SignTable | null {
	const { sign: id, place, before } = splitKey(key);
	if (before !== null) {
		const once = signTable(signKey(id, place), type, placedFaults, rows);
		return once && againTable(once, key, placedFaults, rows);
	}
	if (id === 'search' || id.startsWith('replaced:')) return ruledTable(key, placedFaults, rows);
	const sign = signOf(id);
	if (!allPlaces(sign.about, type).includes(place)) return null;
	const outcomes = outcomesOf(sign, type.sensor);
	const width = outcomes.length;
	const sound = soundChances(sign, type.sensor, outcomes);
	const chance = new Float64Array((rows.length + placedFaults.length) * width);
	const acts = new Uint8Array(rows.length + placedFaults.length);
	const relations = new Map<string, Relation>();
	for (const [row, { fault: index, bin }] of rows.entries()) {
		const { fault, place: at } = placedFaults[index] as PlacedFault;
		const where = `${fault.at} ${at}`;
		const relation =
			relations.get(where) ?? relationOf({ kind: fault.at, place: at }, { kind: sign.about, place }, type);
		relations.set(where, relation);
		const shown = shownBy(`${fault.id}/${faultClass(fault.at, at, type)}`, sign, type.sensor, relation)[bin];
		chance.set(shown ?? sound, row * width);
		acts[row] = Number(shown !== null);
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes, good: outcomes.indexOf(sign.good), sound, chance, acts };
}

/** Somebody who looks twice at what stays the same sees something else with this chance. */
const SEES_OTHERWISE = 0.03;
const BY_EYE = /^(look:|module-plug@)/;

/** A sign once more: what stays shows what it showed, what comes and goes shows what it likes. */
function againTable(
	once: SignTable,
	key: string,
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows']
): SignTable {
	const { outcomes } = once;
	// Eyes miss and imagine anew each time.
	if (BY_EYE.test(key)) return { ...once, key };
	const width = outcomes.length;
	const before = outcomeIndex(once, splitKey(key).before ?? '');
	const otherwise = Math.max(SEES_OTHERWISE, signOf(splitKey(key).sign).misread);
	const sound = Float64Array.from(outcomes, (_, o) =>
		o === before ? 1 - otherwise : otherwise / (width - 1)
	);
	const chance = new Float64Array(once.chance.length);
	const acts = new Uint8Array(once.acts.length);
	for (const [row, { fault, bin }] of rows.entries()) {
		const comesAndGoes = once.acts[row] === 1 && isFickle(placedFaults[fault]?.fault, bin);
		chance.set(comesAndGoes ? once.chance.subarray(row * width, (row + 1) * width) : sound, row * width);
		acts[row] = Number(comesAndGoes);
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes, good: once.good, sound, chance, acts };
}

const isFickle = (fault: Fault | undefined, bin: OutcomeBin): boolean =>
	bin === 'now-and-then' || fault?.when?.shaking !== undefined || fault?.when?.everyKm !== undefined;

const misread = (p: number, sign: Sign, width: number) => p * (1 - sign.misread) + sign.misread / width;

function soundChances(sign: Sign, sensor: string, outcomes: readonly string[]): Float64Array {
	const counts = countsOf.row({ sensor, fault: null, sign: sign.id });
	const usual = (outcome: string) => (outcome === sign.good ? 0.97 : 0) + 0.03 / outcomes.length;
	return Float64Array.from(outcomes, (outcome) =>
		misread(smoothed(counts, outcome, usual(outcome), 2), sign, outcomes.length)
	);
}

type ShownByBin = Record<OutcomeBin, Float64Array | null>;
/** Of all that was counted, worked out when it is first asked for: it is the same for every vehicle and shop. */
const shown = new Map<string, ShownByBin>();

/** Chance of each outcome of a sign under a fault, by its bins; null where it shows as a sound vehicle does. */
function shownBy(faultAndClass: string, sign: Sign, sensor: string, relation: Relation): ShownByBin {
	const key = `${faultAndClass} ${sign.id} ${sensor} ${relation}`;
	const known = shown.get(key);
	if (known) return known;
	const counts = (bin: OutcomeBin) =>
		countsOf.row({ sensor, fault: `${faultAndClass}/${bin}`, sign: sign.id, relation });
	const outcomes = outcomesOf(sign, sensor);
	const sound = soundChances(sign, sensor, outcomes);
	const pooled = pool(OUTCOME_BINS.map(counts));
	const pooledTotal = totalOf(pooled);
	const usual = (outcome: string, o: number) =>
		(USUAL.pooled * (pooled[outcome] ?? 0)) / pooledTotal +
		USUAL.sound * (sound[o] ?? 0) +
		USUAL.any / outcomes.length;
	const ofBin = (bin: OutcomeBin) => {
		const own = counts(bin);
		if (!own) return null;
		return Float64Array.from(outcomes, (outcome, o) =>
			misread(smoothed(own, outcome, usual(outcome, o), SMOOTHING), sign, outcomes.length)
		);
	};
	const made: ShownByBin = {
		slight: ofBin('slight'),
		plain: ofBin('plain'),
		'now-and-then': ofBin('now-and-then')
	};
	shown.set(key, made);
	return made;
}

/** Of a sign that goes by a rule: the same in every bin. */
function ruledTable(key: string, placedFaults: readonly PlacedFault[], rows: ReasonModel['rows']): SignTable {
	const { sign: id, place } = splitKey(key);
	const [, repair = ''] = id.split(':');
	const outcomes = id === 'search' ? [...SEARCH_OUTCOMES] : ['helped', 'did-not-help'];
	const ofFault = (one: PlacedFault | null, outcome: string): number => {
		if (id === 'search')
			return searchChance(
				outcome,
				one && one.fault.at === 'corner' && one.place === place ? one.fault.link : null
			);
		// The wrong part fitted by others is itself a fault, and not one that they cured.
		const tried = one !== null && one.fault.curedBy.includes(repair) && !one.fault.madeByUs;
		const stays = tried ? 0.5 * AFTER_REPLACING : 0.5;
		return outcome === 'did-not-help' ? stays : 1 - stays;
	};
	const of = (one: PlacedFault | null) => outcomes.map((outcome) => ofFault(one, outcome));
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

/** Outcomes that the library lists, and of an open list those that were met, with one for whatever else. */
function outcomesOf(sign: Sign, sensor: string): string[] {
	const listed = Object.keys(sign.outcomes);
	if (!sign.open) return listed;
	const met = countsOf.outcomes(sensor, sign.id).filter((outcome) => !listed.includes(outcome));
	return [...listed, ...met.sort(), 'something else'];
}

const totalOf = (counts: Record<string, number> | null) =>
	Object.values(counts ?? {}).reduce((a, b) => a + b, 0);

function pool(list: (Record<string, number> | null)[]): Record<string, number> {
	const all: Record<string, number> = {};
	for (const counts of list)
		for (const [outcome, n] of Object.entries(counts ?? {})) all[outcome] = (all[outcome] ?? 0) + n;
	return all;
}

/** Counts with a weight of what is usual: (c + w·usual) / (n + w). */
const smoothed = (counts: Record<string, number> | null, outcome: string, usual: number, w: number) =>
	((counts?.[outcome] ?? 0) + w * usual) / (totalOf(counts) + w);
