import { assumedAccess } from '../../../../library/vehicle/known';
import { middlePlugsOf } from '../../../../library/reason/tests';
import { exposedByTest } from '../../../../library/exposedBySteps';
import { wheelReaderOf } from '../../../../library/measurePoints';
import type { PlacedRepair } from '../../../../library/reason/placed';
import { isOfAxle } from '../../../../library/faults';
import { mateOf, type Position } from '../../../../library/positions';
import { approachOf } from '../../../../library/reason/approaches';
import { signKey, splitKey, signOf } from '../../../../library/reason/signs';
import type { PlacedTest } from '../../../../library/reason/tests';
import { minutesOf, type RankedTest } from '../../core/path/nextTest';
import { repairMinutes } from '../../core/path/repairCost';
import { outcomeIndex } from '../../core/path/model';
import { chancesIn } from '../../core/path/situation';
import { lowerFirst } from '../words';
import { testWords } from './plan';
import type { Reasoning } from './reasoning';
import { percentWords } from './percentWords';
import { axleWords, faultWords, placeWords, seenWords } from './words';

/** What the Reason station shows, in words. */

export interface ShownTest {
	id: string;
	kind: string;
	place: string;
	name: string;
	station: PlacedTest['kind']['station'];
	why: string;
	minutes: number;
	/** What of the minutes is getting there. */
	access: string | null;
	/** Where in the description of the vehicle it stands, as far as the way there is only assumed. */
	assumed: string | null;
	bits: number;
	/** Minutes of mending that it is expected to save beyond its own. */
	saves: number;
	outcomes: { words: string; p: number; means: string }[];
	/** What can be said of its outcome by hand, by sign; empty where its own station tells it. */
	asks: { key: string; words: string; choices: { outcome: string; words: string; good: boolean }[] }[];
	ahead: string | null;
	/** What it exposes on this vehicle. */
	exposed: string[];
	/** What others would do instead, and why. */
	school: string | null;
}

const MEANS_FROM = 0.02;

export function shownTest(reasoning: Reasoning, ranked: RankedTest): ShownTest | null {
	const { model, candidates, accessGained } = reasoning;
	const placed = candidates.find(({ id }) => id === ranked.test.id);
	if (!placed) return null;
	const { kind, place } = placed;
	const access = placed.access.filter(({ id }) => !accessGained.has(id));
	const ahead = ranked.because === null ? null : candidates.find(({ id }) => id === ranked.because);
	return {
		id: placed.id,
		kind: kind.id,
		place,
		name: testWords(kind.name, place, model.type),
		station: kind.station,
		why: kind.why,
		minutes: minutesOf(placed, accessGained),
		access:
			access.length > 0
				? access.map((one) => `${accessWords(one.id, model.type)} ${Math.round(one.minutes)} min`).join(', ')
				: null,
		assumed: assumedAmong(access, model.type),
		bits: ranked.bits,
		saves: ranked.saves,
		outcomes: ranked.outcomes
			.filter(({ p }) => p > MEANS_FROM)
			.slice(0, 5)
			.map(({ seen, p }) => ({
				p,
				words: Object.entries(seen)
					.map(([key, outcome]) => outcomeWords(key, outcome, placed, model.type))
					.join('; '),
				means: meaning(reasoning, seen)
			})),
		asks: kind.ownPage ? [] : asksOf(placed, model.type),
		ahead: ahead ? testWords(ahead.kind.name, ahead.place, model.type) : null,
		exposed: exposedByTest(placed, model.type),
		school: schoolWords(reasoning, placed)
	};
}

/** The other way of thinking, with the test it would take at the same place and its minutes from here. */
function schoolWords({ candidates, accessGained }: Reasoning, { kind, place }: PlacedTest): string | null {
	const school = approachOf(kind.id);
	if (!school) return null;
	const there = (id: string) =>
		candidates.find((one) => one.kind.id === id && (one.place === place || one.place === 'vehicle'));
	const instead = school.instead.flatMap((id) => there(id) ?? []);
	const [first] = instead;
	if (!first) return null;
	return `${school.words}: ${lowerFirst(first.kind.name)}, ${Math.round(minutesOf(first, accessGained))} min.`;
}

function asksOf({ signs, place }: PlacedTest, type: Reasoning['model']['type']): ShownTest['asks'] {
	return signs.map((key) => {
		const { sign, place: at } = splitKey(key);
		const { outcomes, good } = signOf(sign);
		return {
			// Told once more it is still the same sign.
			key: signKey(sign, at),
			words: at === place ? '' : placeWords(at, type),
			choices: Object.entries(outcomes).map(([outcome, words]) => ({
				outcome,
				words,
				good: outcome === good
			}))
		};
	});
}

/** Of a test about one place its place need not be said again. */
function outcomeWords(
	key: string,
	outcome: string,
	{ place }: PlacedTest,
	type: Reasoning['model']['type']
): string {
	const at = splitKey(key).place;
	const words = seenWords(key, outcome);
	return at === place ? words : `${placeWords(at, type)}: ${words}`;
}

/** The first of the ways that nobody has told the length of on this vehicle. */
function assumedAmong(access: readonly { id: string }[], type: Reasoning['model']['type']): string | null {
	for (const { id } of access) {
		const [what, place = ''] = id.split(':');
		const path =
			what === 'module'
				? assumedAccess(type, { module: place })
				: what === 'middle'
					? assumedAccess(type, { plugs: middlePlugsOf(type, place).map(({ behind }) => behind) })
					: null;
		if (path) return path;
	}
	return null;
}

function accessWords(id: string, type: Reasoning['model']['type']): string {
	const [what, place = ''] = id.split(':');
	if (what === 'lifted') return 'lift it';
	if (what === 'wheel') return 'wheel off';
	if (what === 'family') return 'tell first which sensor it is';
	if (what === 'plug') return 'reach the sensor’s plug';
	return `reach the ${placeWords(place, type)}`;
}

/** What would then be the likeliest, in a few words. */
function meaning({ model, situation }: Reasoning, seen: Record<string, string>): string {
	let weight = situation.weight;
	for (const [key, outcome] of Object.entries(seen)) {
		const table = model.sign(key);
		if (!table) continue;
		const chance = chancesIn(model, table, situation)[outcomeIndex(table, outcome)];
		weight = weight.map((w, i) => w * (chance?.[i] ?? 0));
	}
	const total = weight.reduce((a, b) => a + b, 0);
	const byFaults = new Map<string, { p: number; faults: readonly number[] }>();
	for (const [i, w] of weight.entries()) {
		const faults = situation.faults[i] ?? [];
		const known = byFaults.get(faults.join());
		byFaults.set(faults.join(), { faults, p: (known?.p ?? 0) + w / total });
	}
	const [first] = [...byFaults.values()].sort((a, b) => b.p - a.p);
	if (!first) return '';
	const what = first.faults.length === 0 ? 'nothing is wrong now' : faultWords(model, first.faults);
	return `${percentWords(first.p)} ${what}`;
}

export interface ShownRepair {
	kind: string;
	place: string;
	name: string;
	/** That it cures something that is there. */
	cures: number;
	/** That it is the one after which nothing is wrong any more: shares of one whole. */
	ends: number;
	minutes: number;
	price: number;
	part: boolean;
}

/** A step that it hardly ever comes to is not told. */
const COMES_TO_IT_FROM = 0.005;

/** A module is renewed whole, though only its input of one wheel is at fault. */
export function repairWords({ kind, name, place }: PlacedRepair, { type }: Reasoning['model']): string {
	const reader = wheelReaderOf(type);
	const wheel = type.wheels.some(({ position }) => position === place);
	return `${name}, ${kind === 'renew-module' && wheel && reader ? lowerFirst(reader.name) : placeWords(place, type)}`;
}

/** Whether what a repair at a wheel is most of all for is wrong at its whole axle: tyres are changed in pairs. */
function ofAxle(
	{ faults }: Reasoning['model'],
	{ present }: Reasoning['belief'],
	{ kind, place }: PlacedRepair
): boolean {
	let [axle, alone] = [0, 0];
	for (const [index, one] of faults.entries()) {
		if (one.fault.link !== 'tyre' || !one.fault.curedBy.includes(kind)) continue;
		const p = present[index] ?? 0;
		if (isOfAxle(one.fault)) axle += one.place === place || mateOf(one.place as Position) === place ? p : 0;
		else alone += one.place === place ? p : 0;
	}
	return axle > alone;
}

/** The repairs in their order, each with the chance that it comes to it and helps. */
export const mendingSteps = ({ decision, model, policy, belief }: Reasoning): ShownRepair[] => {
	let left = 1;
	return decision.mending.slice(0, 4).flatMap(({ repair, cures, ends }) => {
		const one = model.repairs[repair];
		if (!one || left < COMES_TO_IT_FROM) return [];
		left -= ends;
		return [
			{
				ends,
				kind: one.kind,
				place: one.place,
				name: ofAxle(model, belief, one) ? `${one.name}s, ${axleWords(one.place)}` : repairWords(one, model),
				cures,
				minutes: Math.round(repairMinutes(model, repair, { ...policy, minutesPerMoney: 0 })),
				price: one.price,
				part: one.part
			}
		];
	});
};
