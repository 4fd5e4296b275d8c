import type { ModelFault, ModelRepair, PathModel, SignTable } from '../../src/lib/core/path/model';
import { allPlaces, placesFor } from '../faultPlaces';
import { faults, type Fault } from '../faults';
import { repairs } from '../repairs';
import type { VehicleType } from '../vehicles';
import { OUTCOME_BINS, countsOf, type OutcomeBin } from './outcomes';
import priorsFile from './priors.json' with { type: 'json' };
import { faultClass, relationOf } from './relations';
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
		curedBy: fault.curedBy.map((repair) => repairAt(repair, place))
	}));
	const rows = modelFaults.flatMap(({ fault, place }, index) => {
		const bins = binsOf(fault, place, type);
		const all = bins.reduce((sum, bin) => sum + BIN_SHARE[bin], 0);
		return bins.map((bin) => ({ fault: index, bin, share: BIN_SHARE[bin] / all }));
	});
	const tables = new Map<string, SignTable | null>();
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
	const { sign: id, place } = splitKey(key);
	if (id === 'search' || id.startsWith('replaced:')) return ruledTable(key, placedFaults, rows);
	const sign = signOf(id);
	if (!allPlaces(sign.about, type).includes(place)) return null;
	const outcomes = outcomesOf(sign, type.sensor);
	const width = outcomes.length;
	const good = outcomes.indexOf(sign.good);
	const uniform = 1 / width;
	const misread = (p: number) => p * (1 - sign.misread) + sign.misread * uniform;
	const soundCounts = countsOf.row({ sensor: type.sensor, fault: null, sign: id });
	const sound = Float64Array.from(outcomes, (outcome) =>
		misread(smoothed(soundCounts, outcome, (outcome === sign.good ? 0.97 : 0) + 0.03 * uniform, 2))
	);
	const chance = new Float64Array((rows.length + placedFaults.length) * width);
	const acts = new Uint8Array(rows.length + placedFaults.length);
	const seen = { kind: sign.about, place };
	const put = (row: number, of: (outcome: string, o: number) => number) => {
		for (const [o, outcome] of outcomes.entries()) chance[row * width + o] = of(outcome, o);
	};
	const soundAt = (o: number) => sound[o] ?? 0;
	for (const [row, { fault: index, bin }] of rows.entries()) {
		const { fault, place: at } = placedFaults[index] as PlacedFault;
		const relation = relationOf({ kind: fault.at, place: at }, seen, type);
		const counts = (one: OutcomeBin) =>
			countsOf.row({ sensor: type.sensor, fault: ofFault(fault, at, type, one), sign: id, relation });
		const own = counts(bin);
		if (!own) {
			put(row, (_, o) => soundAt(o));
			continue;
		}
		acts[row] = 1;
		const pooled = pool(OUTCOME_BINS.map(counts));
		const pooledTotal = totalOf(pooled);
		put(row, (outcome, o) =>
			misread(
				smoothed(
					own,
					outcome,
					(USUAL.pooled * (pooled[outcome] ?? 0)) / pooledTotal +
						USUAL.sound * soundAt(o) +
						USUAL.any * uniform,
					SMOOTHING
				)
			)
		);
	}
	mixBins(placedFaults.length, rows, width, chance, acts, sound);
	return { key, outcomes, good, sound, chance, acts };
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
