import { countsOf, OUTCOME_BINS, type OutcomeBin } from './outcomes';
import type { Relation } from './relations';
import { otherOf, SOMETHING_ELSE } from '../../src/lib/core/path/model';
import type { Sign } from './signs';

/** Weight of what is usual against what was counted, in counts. */
const SMOOTHING = 1;
/** What is usual: the same fault in its other bins, then a sound vehicle, then anything. */
const USUAL = { pooled: 0.65, sound: 0.25, any: 0.1 };

const misread = (p: number, sign: Sign, width: number) => p * (1 - sign.misread) + sign.misread / width;

/** Of a sound vehicle. */
export function soundChances(sign: Sign, sensor: string, outcomes: readonly string[]): Float64Array {
	const counts = countsOf.row({ sensor, fault: null, sign: sign.id });
	const usual = (outcome: string) =>
		outcome === sign.good ? sign.usual : (1 - sign.usual) / Math.max(1, outcomes.length - 1);
	return Float64Array.from(outcomes, (outcome) =>
		misread(smoothed(counts, outcome, usual(outcome), 2), sign, outcomes.length)
	);
}

type ShownByBin = Record<OutcomeBin, Float64Array | null>;
/** Of all that was counted, worked out when it is first asked for: it is the same for every vehicle and shop. */
const shown = new Map<string, ShownByBin>();

/** Chance of each outcome of a sign under a fault, by its bins; null where it shows as a sound vehicle does. */
export function shownBy(faultAndClass: string, sign: Sign, sensor: string, relation: Relation): ShownByBin {
	const key = `${faultAndClass} ${sign.id} ${sensor} ${relation}`;
	const known = shown.get(key);
	if (known) return known;
	// What was counted elsewhere was imagined.
	const speaks = relation === 'same' || !sign.local;
	const counts = (bin: OutcomeBin) =>
		!speaks ? null : countsOf.row({ sensor, fault: `${faultAndClass}/${bin}`, sign: sign.id, relation });
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
		const chances = Float64Array.from(outcomes, (outcome, o) =>
			misread(smoothed(own, outcome, usual(outcome, o), SMOOTHING), sign, outcomes.length)
		);
		return sign.open ? withOthersOfKind(chances, outcomes) : chances;
	};
	const made: ShownByBin = {
		slight: ofBin('slight'),
		plain: ofBin('plain'),
		'now-and-then': ofBin('now-and-then')
	};
	shown.set(key, made);
	return made;
}

/** What a maker's code of a kind that was met may also say: the same thing failing in another way. */
const OTHERS_OF_KIND = 0.1;
const kindOf = (outcome: string) => outcome.replace(/-[0-9A-F]{2}$/, '');

/**
 * Outcomes that the library lists, and of an open list those that were met, each kind of them with one for whatever else of
 * that kind, and one for whatever else there is.
 */
export function outcomesOf(sign: Sign, sensor: string): string[] {
	const listed = Object.keys(sign.outcomes);
	if (!sign.open) return listed;
	const met = countsOf.outcomes(sensor, sign.id).filter((outcome) => !listed.includes(outcome));
	const kinds = [...new Set(met.map(kindOf))].map(otherOf);
	return [...listed, ...met.sort(), ...kinds.sort(), SOMETHING_ELSE];
}

/** Of what was met of each kind a share is left to other ways of failing of that kind. */
function withOthersOfKind(chances: Float64Array, outcomes: readonly string[]): Float64Array {
	const next = Float64Array.from(chances);
	for (const [o, outcome] of outcomes.entries()) {
		const other = outcomes.indexOf(otherOf(kindOf(outcome)));
		if (other < 0 || other === o) continue;
		const share = (chances[o] ?? 0) * OTHERS_OF_KIND;
		next[o] = (next[o] ?? 0) - share;
		next[other] = (next[other] ?? 0) + share;
	}
	return next;
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
