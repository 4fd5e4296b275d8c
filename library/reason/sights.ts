import { faults, type Fault } from '../faults';
import type { Link } from '../links';
import { inspections } from '../measure';
import type { PlaceKind } from '../repairs';
import type { VehicleType } from '../vehicles';
import { relationOf } from './relations';
import { BAD, signOf, type Sign } from './signs';

/**
 * What is seen by eye follows from how surely each fault is seen (`visible` of the fault), and from how often the same is seen where
 * nothing is wrong. It is a rule, and the same for the reasoning and for the eyes of the bench.
 */

/** A sign that is seen by eye. */
export type EyeSign = Sign & { alsoSound: Record<string, number> };
export const isByEyeAlone = (sign: Sign): sign is EyeSign => sign.alsoSound !== undefined;

/** Seen no more often than this where nothing is wrong, it can only be the fault itself. */
const CLEAR_BELOW = 1e-5;
export const isClearSight = (sign: Sign, outcome: string): boolean =>
	outcome !== sign.good && (sign.alsoSound?.[outcome] ?? 1) < CLEAR_BELOW;

/** Of a fault that is seen there, how often somebody says that it is bad and not what. */
const BAD_OF_FAULT = 0.06;

/** Chances of each outcome where nothing is wrong. */
export function soundSights({ outcomes, good, alsoSound }: EyeSign): Map<string, number> {
	const others = Object.keys(outcomes).filter((outcome) => outcome !== good);
	const all = others.reduce((sum, outcome) => sum + (alsoSound[outcome] ?? 0), 0);
	return new Map(
		Object.keys(outcomes).map((outcome) => [outcome, outcome === good ? 1 - all : (alsoSound[outcome] ?? 0)])
	);
}

/**
 * How surely a fault is seen at a place, by outcome of the sign; empty where it is not seen there. What is wrong with the pins of a
 * wheel in the plug of the module that reads it is seen at that plug.
 */
export function sightsOf(
	fault: Fault,
	at: string,
	sign: Sign,
	seenAt: { kind: PlaceKind; place: string },
	type: VehicleType
): Map<string, number> {
	const own = fault.visible.filter((one) => one.sign === sign.id);
	if (own.length === 0) return new Map();
	const relation = relationOf({ kind: fault.at, place: at }, seenAt, type);
	const seen = own.filter(
		({ atMate, atHanging }) =>
			relation === 'same' ||
			// Seen of the vehicle as a whole.
			seenAt.kind === 'vehicle' ||
			(relation === 'reader' && fault.at === 'corner') ||
			(atMate && relation === 'mate') ||
			(atHanging && relation === 'hangs')
	);
	return new Map(seen.map(({ as, surely }) => [as, surely]));
}

/** Chances of each outcome under a fault that is seen there so. */
export function shownSights(sign: EyeSign, seen: ReadonlyMap<string, number>): Map<string, number> {
	const sound = soundSights(sign);
	const said = new Map([...seen].map(([outcome, surely]) => [outcome, surely * (1 - BAD_OF_FAULT)]));
	if (sound.has(BAD)) said.set(BAD, BAD_OF_FAULT);
	const rest = 1 - [...said.values()].reduce((a, b) => a + b, 0);
	return new Map([...sound].map(([outcome, p]) => [outcome, (said.get(outcome) ?? 0) + rest * p]));
}

/** What was ticked of a look, or written as its words before ticks had names. */
export interface Ticked {
	inspection: string;
	sights?: readonly string[] | undefined;
	found: readonly string[];
}

/** Which of the things that can be seen in a look were seen. */
export function sightsSeen({ inspection, sights = [], found }: Ticked): string[] {
	const all = inspections.find(({ id }) => id === inspection)?.sights ?? [];
	return all.filter(({ id, words }) => sights.includes(id) || found.includes(words)).map(({ id }) => id);
}

/** How a look came out that found something: what is clearest of what was seen; without a what it is only bad. */
export function outcomeOfLook(ticked: Ticked): string {
	const sign = signOf(`look:${ticked.inspection}`);
	const { alsoSound } = sign;
	if (!alsoSound) return BAD;
	const [clearest = BAD] = sightsSeen(ticked).sort((a, b) => (alsoSound[a] ?? 1) - (alsoSound[b] ?? 1));
	return clearest;
}

/** Links that are at fault where this is seen; the look's own where no fault of the library is seen so. */
export function linksSeenBy(inspection: string, sight: string): Link[] {
	const links = [...faults.values()]
		.filter(({ visible }) => visible.some(({ sign, as }) => sign === `look:${inspection}` && as === sight))
		.map(({ link }) => link);
	const own = inspections.find(({ id }) => id === inspection)?.link;
	return links.length > 0 ? [...new Set(links)] : own ? [own] : [];
}
