import { isSilent } from '../../../../library/reason/codeSigns';
import { signOf, splitKey, type Seen } from '../../../../library/reason/signs';
import { lookedInto } from '../../../../library/reason/looked';
import { afterSameLine, canBeDone, onceMore, type PlacedTest } from '../../../../library/reason/tests';
import type { PlacedRepair, ReasonModel } from '../../../../library/reason/placed';
import { decide } from '../../core/path/nextTest';
import { mendingCost } from '../../core/path/repairCost';
import { situationOf } from '../../core/path/situation';
import type { Bench, Move, Way } from './diagnosis';

/** From here on nothing is left to mend. */
const DONE_FROM = 0.9;
/** After a proof that showed nothing any more, this is enough. */
const PROVEN_FROM = 0.5;
/** Less likely than this nobody lays hands on anything. */
const LEAST_CURE = 0.2;

const situationAt = (bench: Bench) => situationOf(bench.model, bench.belief());

function repairOf({ model }: Bench, index: number | undefined): PlacedRepair | null {
	return index === undefined ? null : (model.repairs[index] ?? null);
}

/** Whether there is nothing left to look for. */
const isDone = (bench: Bench): boolean => bench.belief().nothing > (bench.troubled ? DONE_FROM : PROVEN_FROM);

/** What live data found on the last drive stands before a signature: it is looked into, as far as anything tells of it. */
const liveStands = (bench: Bench): boolean =>
	bench.mended.length > 0 &&
	Object.entries(bench.seen).some(([key, outcome]) => {
		const { sign } = splitKey(key);
		return sign === LIVE && outcome !== signOf(LIVE).good;
	});
const LIVE = 'road';

const timesDone = ({ done }: Bench, { id }: PlacedTest): number => done.get(id) ?? 0;

/** Not done, or worth doing once more; and whoever has to answer for it answers. */
function isOpen(bench: Bench, test: PlacedTest): boolean {
	const silent = new Set(
		Object.entries(bench.seen).flatMap(([key, outcome]) => {
			const { sign, place } = splitKey(key);
			return isSilent(sign, outcome) ? [place] : [];
		})
	);
	return timesDone(bench, test) <= test.kind.repeats && canBeDone(test, bench.model.type, silent);
}

/** Given back, with what is likeliest of what is left. */
function handBack(bench: Bench): Move {
	return { handBack: true, unknown: bench.model.background.has(likeliestOf(bench.belief().present)) };
}

const likeliestOf = (present: Float64Array): number =>
	present.reduce((best, p, i) => (p > (present[best] ?? 0) ? i : best), 0);

/** The product's own: what tells most for its minutes, until repairing is worth more. */
export const jaldi: Way = (bench) => {
	if (isDone(bench) && !liveStands(bench)) return handBack(bench);
	const open = bench.tests.filter((test) => isOpen(bench, test));
	const candidates = open.map((test) =>
		timesDone(bench, test) > 0
			? onceMore(test, (sign) => bench.seen[sign])
			: afterSameLine(test, (sign) => bench.seen[sign], bench.model.type)
	);
	const decision = decide(bench.model, situationAt(bench), candidates, bench.policy, bench.accessGained, {
		...lookedInto(bench.model, Object.keys(bench.seen), candidates),
		withoutHelp: bench.withoutHelp,
		searched: (index) => bench.mended.some(({ id }) => id === bench.model.repairs[index]?.id)
	});
	const test = decision.test && open.find(({ id }) => id === decision.test?.test.id);
	if (test) return { test };
	const [step] = decision.mending;
	const repair = repairOf(bench, step?.repair);
	if (!repair || !step) return handBack(bench);
	const worthIt = step.cures > LEAST_CURE || decision.why === 'repairs-did-not-help';
	return worthIt ? { repair, cures: step.cures } : handBack(bench);
};

/** What the codes and the round point at: wheels and modules, the most pointed at first. */
function suspects(seen: Seen, model: ReasonModel): string[] {
	const votes = new Map<string, number>();
	for (const [key, outcome] of Object.entries(seen)) {
		const table = model.sign(key);
		if (!table || table.outcomes[table.good] === outcome) continue;
		const { place } = splitKey(key);
		votes.set(place, (votes.get(place) ?? 0) + 1);
	}
	return [...votes].sort((a, b) => b[1] - a[1]).map(([place]) => place);
}

/** The order of the trade: read, clear and read again, round, road, then the suspect place from the near to the far. */
const FIRST = ['recheck@vehicle', 'spin@vehicle', 'road@vehicle', 'tyres@vehicle', 'battery@vehicle'];
const AT_WHEEL = [
	'meter:coil-ohms',
	'meter:feed-at-sensor',
	'meter:feed-loaded',
	'meter:supply-across',
	'meter:signal-unplugged',
	'meter:bias-across',
	'meter:coil-to-body',
	'meter:ac-at-sensor',
	'scope-sensor',
	'scope-module',
	'substitute',
	'rock',
	'look:gap',
	'look:ring',
	'true',
	'look:encoder',
	'look:seating',
	'look:bracket',
	'look:lead',
	'look:clips',
	'look:pins',
	'look:water',
	'middle-plug',
	'wave',
	'wiggle-sensor',
	'wiggle-plug',
	'wiggle-lead',
	'wiggle-far',
	'spray',
	'meter:loop-ohms',
	'meter:lead-feed',
	'meter:lead-signal',
	'meter:insulation-feed',
	'meter:insulation-signal',
	'meter:wires-apart'
];
const AT_MODULE = [
	'coding',
	'learned',
	'sense',
	'meter:module-supply',
	'meter:ground-drop',
	'meter:bus-ohms',
	'meter:bus-high',
	'meter:bus-low',
	'module-plug',
	'shake'
];
const SHARED = ['fuse', 'ground', 'spray-ground', 'splice'];

/** The same reasoning and the same bar for ordering a part, but the tests of the trade in their fixed order. */
export const checklist: Way = (bench) => {
	if (isDone(bench)) return handBack(bench);
	const situation = situationAt(bench);
	const { steps } = mendingCost(bench.model, situation, situation.weight, bench.policy);
	const [best] = steps;
	const repair = repairOf(bench, best?.repair);
	if (repair && best && best.cures >= bench.policy.confidence) return { repair, cures: best.cures };
	const next = inFixedOrder(bench);
	if (next) return { test: next };
	return repair && best && best.cures > LEAST_CURE ? { repair, cures: best.cures } : handBack(bench);
};

function inFixedOrder(bench: Bench): PlacedTest | null {
	const { tests, seen, model } = bench;
	const isNew = (test: PlacedTest) => timesDone(bench, test) === 0 && isOpen(bench, test);
	const open = (id: string) => tests.find((test) => test.id === id && isNew(test)) ?? null;
	for (const id of FIRST) {
		const test = open(id);
		if (test) return test;
	}
	for (const place of suspects(seen, model)) {
		for (const kind of place.includes('-left') || place.includes('-right') ? AT_WHEEL : AT_MODULE) {
			const test = open(`${kind}@${place}`);
			if (test) return test;
		}
	}
	const silent = Object.entries(seen).some(([key, outcome]) => isSilent(splitKey(key).sign, outcome));
	if (!silent) return null;
	return tests.find((test) => SHARED.includes(test.kind.id) && isNew(test)) ?? null;
}

/** Parts that a code of this kind is most often answered with, one after the other. */
const PARTS_AT_WHEEL = ['renew-sensor', 'renew-lead', 'renew-hub', 'fit-right-tyre'];
const PARTS_AT_MODULE = ['calibrate', 'code-module', 'renew-module', 'repair-bus'];

/** A code is answered with a part, and if it comes back with the next. */
export const partsFirst: Way = ({ seen, model, mended, troubled }): Move => {
	if (!troubled) return { handBack: true };
	for (const place of suspects(seen, model)) {
		const wheel = place.includes('-left') || place.includes('-right');
		for (const kind of wheel ? PARTS_AT_WHEEL : PARTS_AT_MODULE) {
			const repair = model.repairs.find((one) => one.kind === kind && one.place === place);
			if (repair && !mended.includes(repair)) return { repair };
		}
	}
	return { handBack: true };
};

export const WAYS = { jaldi, checklist, 'parts-first': partsFirst } as const;
