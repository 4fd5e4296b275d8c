import type { SignTable } from '../../src/lib/core/path/model';
import { makersAlone } from '../exposed';
import { allPlaces, placesFor } from '../faultPlaces';
import { faults, isOfAxle, mayComeAndGo, type Fault } from '../faults';
import { mateOf, type Position } from '../positions';
import { MAKERS_PROCEDURE, repairs } from '../repairs';
import type { VehicleType } from '../vehicles';
import { chanceOf, familiesAt } from '../wheelSensors';
import { OUTCOME_BINS, countsOf, type OutcomeBin } from './outcomes';
import priorsFile from './priors.json' with { type: 'json' };
import { libraryWeight, type Weights } from './odds';
import { placeOfAll, type ModelRow, type PlacedFault, type PlacedRepair, type ReasonModel } from './placed';
import {
	GENERAL_METHOD,
	NOT_DESCRIBED,
	NOT_DESCRIBED_AT,
	notDescribedAt,
	USUAL_NOT_DESCRIBED
} from './notDescribed';
import { faultClass } from './relations';
import { signKey } from './signs';
import { signTable } from './signTables';

/** A shop's own minutes and price of a repair; null = the library's. */
export type RepairCosts = (kind: string) => { minutes: number; price: number } | null;
const BIN_SHARE: Record<OutcomeBin, number> = { slight: 0.4, plain: 0.45, 'now-and-then': 0.15 };
/** Of what is not described, what sits where little is described. */
const ANYWHERE = 0.2;
/** How often what is not described shows nothing anywhere else. */
const AT_ITS_PLACE_ALONE = 0.12;
/** Of what stays as it is. */
const HARDLY_EVER = 0.01;

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
	/** A module whose maker alone says how is left to those who are qualified, whatever is wrong with it. */
	const repairFor = (kind: string, at: string): number => {
		const alone = makersAlone(type, at);
		return alone ? repairAt(MAKERS_PROCEDURE, alone.role) : repairAt(kind, at);
	};
	const placed = [...faults.values()].flatMap((fault) => {
		const places = placesFor(fault, type);
		// Where nobody has told what a sensor is, what only some families have is as likely as they are.
		const share = (place: string) =>
			fault.at === 'corner' ? chanceOf(familiesAt(type, place), fault.sensors) : 1;
		return places.map((place) => ({
			fault,
			place,
			weight: (share(place) * weight(fault.id)) / Math.sqrt(places.length)
		}));
	});
	const total = placed.reduce((sum, one) => sum + one.weight, 0);
	const described = placed.map(({ fault, place, weight: own }): PlacedFault => ({
		id: signKey(fault.id, place),
		fault,
		place,
		prior: (own / total) * (1 - USUAL_NOT_DESCRIBED),
		curedBy: fault.curedBy.flatMap((repair) =>
			(isOfAxle(fault) ? [place, mateOf(place as Position)] : [place]).map((at) => repairFor(repair, at))
		)
	}));
	// By how much can go wrong at a place that is described, and a little anywhere.
	const unknownAt = NOT_DESCRIBED_AT.flatMap((at) => {
		const places = allPlaces(at, type);
		return places.map((place) => {
			const own = described.filter((one) => placeOfAll(one) === signKey(at, place));
			return { at, place, weight: own.reduce((sum, one) => sum + one.prior, 0) };
		});
	});
	const anywhere = ANYWHERE / unknownAt.length;
	const ofUnknown = unknownAt.reduce((sum, one) => sum + one.weight + anywhere, 0);
	const modelFaults: PlacedFault[] = [
		...described,
		...unknownAt.map(({ at, place, weight: own }): PlacedFault => ({
			id: signKey(NOT_DESCRIBED, place),
			fault: notDescribedAt(at),
			place,
			prior: (USUAL_NOT_DESCRIBED * (own + anywhere)) / ofUnknown,
			curedBy: [repairFor(GENERAL_METHOD, place)]
		}))
	];
	const background = new Set([...modelFaults.keys()].slice(described.length));
	const backgroundAt = new Map(
		[...background].map((index) => [placeOfAll(modelFaults[index] as PlacedFault), index])
	);
	const backgroundOf = modelFaults.map((one) => backgroundAt.get(placeOfAll(one)) ?? -1);
	const rows = modelFaults.flatMap((one, index): ModelRow[] => {
		if (background.has(index)) return rowsOfUnknown(one, index, described);
		const { fault, place } = one;
		const bins = binsOf(fault, place, type);
		const shareOf = (bin: OutcomeBin) =>
			bin === 'now-and-then' && !mayComeAndGo(fault) ? HARDLY_EVER : BIN_SHARE[bin];
		const all = bins.reduce((sum, bin) => sum + shareOf(bin), 0);
		return bins.map((bin) => ({ fault: index, bin, share: shareOf(bin) / all, like: null }));
	});
	const tables = tablesOf(type);
	return {
		type,
		faults: modelFaults,
		rows,
		repairs: placedRepairs,
		background,
		backgroundOf,
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

/** The model of a vehicle on which so much of what is seen is nothing that the library describes. */
export function withNotDescribed(model: ReasonModel, share: number): ReasonModel {
	let now = 0;
	for (const index of model.background) now += model.faults[index]?.prior ?? 0;
	if (!(now > 0 && now < 1)) return model;
	const faults = model.faults.map((one, i) => ({
		...one,
		prior: one.prior * (model.background.has(i) ? share / now : (1 - share) / (1 - now))
	}));
	return { ...model, faults };
}

const tablesByType = new WeakMap<VehicleType, Map<string, SignTable | null>>();

/** What is seen under which fault has nothing to do with a shop's odds and prices: the same tables for all of them. */
function tablesOf(type: VehicleType): Map<string, SignTable | null> {
	const known = tablesByType.get(type) ?? new Map<string, SignTable | null>();
	tablesByType.set(type, known);
	return known;
}

/**
 * Something not described shows nothing anywhere else, or what the described faults of one link of its place show on the whole: what
 * they show hangs together, and so does what it shows.
 */
function rowsOfUnknown(one: PlacedFault, fault: number, described: readonly PlacedFault[]): ModelRow[] {
	const at = placeOfAll(one);
	const byLink = new Map<Fault['link'], number>();
	for (const other of described)
		if (placeOfAll(other) === at)
			byLink.set(other.fault.link, (byLink.get(other.fault.link) ?? 0) + other.prior);
	const total = [...byLink.values()].reduce((sum, prior) => sum + prior, 0);
	const alone: ModelRow = { fault, bin: 'slight', share: AT_ITS_PLACE_ALONE, like: null };
	const rest = 1 - AT_ITS_PLACE_ALONE;
	if (!(total > 0)) return [alone, { ...alone, bin: 'plain', share: rest }];
	const rows = [...byLink].map(([like, prior]): ModelRow => ({
		fault,
		bin: 'plain',
		share: (rest * prior) / total,
		like
	}));
	return [alone, ...rows];
}

const ofFault = (fault: Fault, place: string, type: VehicleType, bin: OutcomeBin) =>
	`${fault.id}/${faultClass(fault.at, place, type)}/${bin}`;

/** Bins of a fault that were counted; at least one. */
function binsOf(fault: Fault, place: string, type: VehicleType): OutcomeBin[] {
	const counted = OUTCOME_BINS.filter((bin) => countsOf.bins.has(ofFault(fault, place, type, bin)));
	return counted.length > 0 ? counted : ['plain'];
}
