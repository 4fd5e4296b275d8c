// npm run outcomes: how often each fault shows each outcome of each test, counted on bench vehicles.
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync, readdirSync, mkdirSync } from 'node:fs';
import { linkTypes, type VehicleType } from '../library/index';
import { faults, type Fault } from '../library/faults';
import { allPlaces, placesFor } from '../library/faultPlaces';
import { wheelReaderOf } from '../library/measurePoints';
import { OUTCOME_BINS, rowKey, type OutcomeBin } from '../library/reason/outcomeRows';
import { faultClass, hangingOn, relationOf } from '../library/reason/relations';
import { isRuled } from '../library/reason/ruledSigns';
import { signOf, signs, splitKey } from '../library/reason/signs';
import { testsFor, type PlacedTest } from '../library/reason/tests';
import { uniform } from '../src/lib/bench/vehicle';
import { mixedSeed } from '../src/lib/bench/technician/mixedSeed';
import { trialVehicle } from '../src/lib/bench/technician/trialVehicle';
import { countedFromNow } from './countedFrom';
import { SimulatedTechnician } from '../src/lib/bench/technician/simulatedTechnician';
import { sharedPlugsOf } from '../library/sharedPlugs';
import { likeliestFamilyAt } from '../library/wheelSensors';

/** Seeds apart from those of any trial, which count up from small numbers. */
const FIRST_SEED = Number(process.env.FIRST_SEED ?? 900_000_000);
const PARTS = 'data/outcomes';
const OUTCOMES = 'library/reason/outcomes.json';
/** To count only some tests anew, by their ids. */
const ONLY_TESTS = new RegExp(process.env.ONLY_TESTS ?? '');
/** And to keep only some of what they show. */
const ONLY_SIGNS = new RegExp(process.env.ONLY_SIGNS ?? '');

type Counts = Record<string, Record<string, number>>;
/** Of vehicles that were brought in because something showed, and of those that had the fault without its owner's knowing. */
/** Counted are vehicles whose wheels all have sensors of one family. */
const familyOf = (type: VehicleType) => likeliestFamilyAt(type, '');

interface Part {
	shown: Counts;
	silent: Counts;
}
const add = (counts: Counts, key: string, outcome: string) => {
	const row = (counts[key] ??= {});
	row[outcome] = (row[outcome] ?? 0) + 1;
};

/** Severities, and how it comes and goes, of one bin. */
function drawn(bin: OutcomeBin, random: () => number) {
	const low = bin === 'plain' ? 0.5 : 0;
	const high = bin === 'slight' ? 0.5 : 1;
	return {
		severity: low + random() * (high - low),
		everyKm: bin === 'now-and-then' ? 0.7 * 10 ** random() : null
	};
}

function binsFor(fault: Fault): OutcomeBin[] {
	if (
		fault.effects.every(({ do: does }) => ['keep', 'blow', 'internal', 'dead', 'terminator'].includes(does))
	)
		return ['plain'];
	if (fault.link === 'tyre' || fault.link === 'calibration') return ['slight', 'plain'];
	return [...OUTCOME_BINS];
}

/** Tests that can tell something of a fault: at its place, at the place that reads it, at one that has nothing to do with it. */
function worthDoing(fault: Fault, at: string, type: VehicleType, random: () => number): PlacedTest[] {
	const pick = (list: string[]) => list[Math.floor(random() * list.length)];
	const reader = wheelReaderOf(type)?.role;
	const hangs = hangingOn(at, type);
	const carried = sharedPlugsOf(type).find(({ name }) => name === at)?.wheels;
	const wheels = allPlaces('corner', type);
	const corners =
		fault.at === 'corner'
			? [at]
			: carried
				? [pick([...carried]), pick(wheels.filter((one) => !carried.some((other) => other === one)))]
				: [pick(wheels)];
	const touchesWheels =
		carried !== undefined ||
		fault.at === 'corner' ||
		at === reader ||
		hangs.some(({ role }) => role === reader);
	const segment = type.modules.find(({ role }) => role === at)?.segment;
	const modules =
		fault.at === 'module'
			? [
					at,
					pick(
						type.modules.filter((one) => one.role !== at && one.segment === segment).map((one) => one.role)
					)
				]
			: fault.at === 'corner' || carried
				? [reader]
				: [
						pick(hangs.map(({ role }) => role)),
						pick(onSegmentsOf(hangs, type)),
						pick(allPlaces('module', type))
					];
	return testsFor(type).filter(({ kind, place }) => {
		if (!ONLY_TESTS.test(kind.id)) return false;
		if (kind.about === 'vehicle') return true;
		if (kind.about === 'corner') return touchesWheels && corners.includes(place);
		if (kind.about === 'module') return modules.includes(place);
		return place === at;
	});
}

/** Modules that share a bus segment with one of these. */
const onSegmentsOf = (modules: VehicleType['modules'], type: VehicleType): string[] =>
	type.modules
		.filter((one) => !modules.includes(one) && modules.some(({ segment }) => segment === one.segment))
		.map(({ role }) => role);

function countOne(
	{ shown, silent }: Part,
	type: VehicleType,
	fault: Fault | null,
	bin: OutcomeBin,
	number: number,
	ofClass: string | null = null
): void {
	const seed = mixedSeed(number);
	const random = uniform(seed);
	const places = fault
		? placesFor(fault, type).filter((at) => ofClass === null || faultClass(fault.at, at, type) === ofClass)
		: ['vehicle'];
	const at = places[Math.floor(random() * places.length)];
	if (at === undefined) return;
	const { severity, everyKm } = drawn(bin, random);
	const vehicle = trialVehicle(type, fault ? [{ id: fault.id, at, severity, everyKm }] : [], seed);
	const technician = new SimulatedTechnician(vehicle, random);
	const tests = fault
		? worthDoing(fault, at, type, random)
		: testsFor(type).filter(
				({ kind, place }) =>
					ONLY_TESTS.test(kind.id) && ['vehicle', 'brake', type.wheels[0]?.position].includes(place)
			);
	if (tests.length === 0) return;
	const arrived = technician.arrives();
	// What shows nothing is not brought in for it: that counts only where a fault never shows anything else.
	const counts = fault && !technician.shown ? silent : shown;
	const note = (seen: Record<string, string>) => {
		for (const [key, outcome] of Object.entries(seen)) {
			const { sign, place } = splitKey(key);
			if (!ONLY_SIGNS.test(sign) || isRuled(sign)) continue;
			const kind = signOf(sign).about;
			if (!fault) add(counts, rowKey({ sensor: familyOf(type), fault: null, sign }), outcome);
			else {
				const relation = relationOf({ kind: fault.at, place: at }, { kind, place }, type);
				const of = `${fault.id}/${faultClass(fault.at, at, type)}/${bin}`;
				add(counts, rowKey({ sensor: familyOf(type), fault: of, sign, relation }), outcome);
			}
		}
	};
	if (ONLY_TESTS.test('scan')) note(arrived);
	for (const test of tests) note(technician.perform(test));
}

/** Seeds of the sample by which a change of the code is shown to change nothing that is counted. */
const SAMPLE_SEED = 800_000_000;
const SAMPLE_OF_TYPE = 5;

/** Counts of a few vehicles of every type, as one hash. */
function sampled(): string {
	const part: Part = { shown: {}, silent: {} };
	const all = [...faults.values()];
	let seed = SAMPLE_SEED;
	for (const type of linkTypes)
		for (let i = 0; i < SAMPLE_OF_TYPE; i++) {
			seed += 1;
			const fault = all[mixedSeed(seed) % all.length] ?? null;
			countOne(part, type, fault, (fault && binsFor(fault).at(-1)) ?? 'plain', seed);
		}
	const sorted = (counts: Counts) => Object.entries(counts).sort(([a], [b]) => (a < b ? -1 : 1));
	return createHash('sha256')
		.update(JSON.stringify([sorted(part.shown), sorted(part.silent)]))
		.digest('hex')
		.slice(0, 16);
}

interface Table {
	bins: string[];
	rows: Counts;
	sample: string;
}
const tableNow = () => JSON.parse(readFileSync(OUTCOMES, 'utf8')) as Table;

const [what = 'count', ...rest] = process.argv.slice(2);
if (what === 'count') {
	const [draws = '4', part = '0', of = '1', only = ''] = rest;
	const counts: Part = { shown: {}, silent: {} };
	const began = Date.now();
	let seed = FIRST_SEED;
	let done = 0;
	for (const type of linkTypes) {
		for (let i = 0; i < Number(draws); i++) {
			seed += 1;
			if (seed % Number(of) === Number(part) && !only) countOne(counts, type, null, 'plain', seed);
		}
		for (const fault of faults.values()) {
			if (only && fault.id !== only) continue;
			for (const bin of binsFor(fault)) {
				for (let i = 0; i < Number(draws); i++) {
					seed += 1;
					if (seed % Number(of) !== Number(part)) continue;
					countOne(counts, type, fault, bin, seed);
					done += 1;
				}
			}
		}
		console.log(`${type.id}: ${done} vehicles, ${((Date.now() - began) / 1000).toFixed(0)} s`);
	}
	mkdirSync(PARTS, { recursive: true });
	writeFileSync(`${PARTS}/part-${FIRST_SEED}-${part}.json`, JSON.stringify(counts));
} else if (what === 'missing') {
	// Faults of a class of place of which this kind of vehicle has no row at all: chance left them out.
	const [draws = '6', only = ''] = rest;
	const counts: Part = { shown: {}, silent: {} };
	const known = new Set(Object.keys(tableNow().rows).map((key) => key.split('|').slice(0, 2).join('|')));
	let seed = FIRST_SEED;
	for (const type of linkTypes)
		for (const fault of faults.values()) {
			if (!new RegExp(only).test(fault.id)) continue;
			const classes = new Set(placesFor(fault, type).map((at) => faultClass(fault.at, at, type)));
			for (const ofClass of classes)
				for (const bin of binsFor(fault)) {
					const of = `${familyOf(type)}|${fault.id}/${ofClass}/${bin}`;
					if (known.has(of)) continue;
					for (let i = 0; i < Number(draws); i++) countOne(counts, type, fault, bin, ++seed, ofClass);
					console.log(of);
				}
		}
	mkdirSync(PARTS, { recursive: true });
	writeFileSync(`${PARTS}/missing-${FIRST_SEED}.json`, JSON.stringify(counts));
} else if (what === 'stamp') {
	// After a change of form: the same vehicles must show the same, then the table holds for the code as it is now.
	const before = tableNow();
	const sample = sampled();
	if (sample !== before.sample) {
		console.error('The sample shows something else than before: count anew (docs/reasoning.md).');
		process.exit(1);
	}
	writeFileSync(OUTCOMES, `${written(before.rows, before.bins, sample)}\n`);
	console.log('The sample shows what it showed; the table is stamped.');
} else {
	const parts = readdirSync(PARTS).map(
		(file) => JSON.parse(readFileSync(`${PARTS}/${file}`, 'utf8')) as Part
	);
	const shown = sum(parts.map((part) => part.shown));
	const silent = sum(parts.map((part) => part.silent));
	const binOf = (key: string) => key.split('|')[1] ?? '';
	const before = tableNow();
	// A bin that never showed anything to an owner is known from vehicles that are here for another reason.
	const ofKind = (key: string) => key.split('|').slice(0, 2).join('|');
	const known = new Set([...Object.keys(before.rows), ...Object.keys(shown)].map(ofKind));
	const anew = { ...shown };
	for (const [key, row] of Object.entries(silent)) if (!known.has(ofKind(key))) anew[key] = row;
	// Of a sign of a fault of which nothing was counted anew, what is known stays.
	const told = (key: string) => key.split('|').slice(0, 3).join('|');
	const counted = new Set(Object.keys(anew).map(told));
	const kept = Object.fromEntries(Object.entries(before.rows).filter(([key]) => !counted.has(told(key))));
	const all = { ...kept, ...anew };
	const bins = [...new Set([...Object.keys(all).map(binOf), ...before.bins])].filter(Boolean).sort();
	writeFileSync(OUTCOMES, `${written(telling(all), bins, sampled())}\n`);
}

function sum(list: readonly Counts[]): Counts {
	const all: Counts = {};
	for (const counts of list)
		for (const [key, row] of Object.entries(counts))
			for (const [outcome, n] of Object.entries(row)) {
				const to = (all[key] ??= {});
				to[outcome] = (to[outcome] ?? 0) + n;
			}
	return all;
}

/** Rows that say no more than a sound vehicle's are left out. */
function telling(counts: Counts): Counts {
	const kept = Object.entries(counts).filter(([key, row]) => {
		const [sensor = '', fault = '', sign = ''] = key.split('|');
		// A test that the library no longer has, or one whose chances go by a rule.
		if (!signs.has(sign) || isRuled(sign)) return false;
		if (fault === '') return true;
		const sound = counts[rowKey({ sensor, fault: null, sign })] ?? {};
		const total = (of: Record<string, number>) => Object.values(of).reduce((a, b) => a + b, 0);
		const [n, m] = [total(row), total(sound)];
		const names = new Set([...Object.keys(row), ...Object.keys(sound)]);
		const good = signOf(sign).good;
		const apart = [...names].reduce(
			(sum, name) =>
				sum + Math.abs((row[name] ?? 0) / n - (m > 0 ? (sound[name] ?? 0) / m : Number(name === good))) / 2,
			0
		);
		return apart > 0.05;
	});
	return Object.fromEntries(kept);
}

function written(rows: Counts, bins: readonly string[], sample: string): string {
	const lines = Object.entries(rows)
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([key, row]) => `\t\t${JSON.stringify(key)}: ${JSON.stringify(row)}`);
	const head = [
		'\t"version": 2',
		'\t"source": "counted on bench vehicles by npm run outcomes"',
		`\t"countedFrom": ${JSON.stringify(countedFromNow())}`,
		`\t"sample": ${JSON.stringify(sample)}`,
		`\t"bins": ${JSON.stringify(bins)}`
	];
	return `{\n${head.join(',\n')},\n\t"rows": {\n${lines.join(',\n')}\n\t}\n}`;
}
