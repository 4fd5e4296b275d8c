import { channelsTold } from '../entries/scope-capture/evidence';
import { undisturbed } from '../thread/inTheWay';
import { knownFamilyAt } from '../../../../library/wheelSensors';
import { positionOf, type Position } from '../../../../library/positions';
import { LINKS, type Link } from '../../../../library/links';
import type { SensorKind } from '../../../../library/sensorKinds';
import { typeOf } from '../thread/vehicleOf';
import { isBadBenchTest, isBenchTest, type BenchTest } from './benchTests';
import type { Entry } from '../entries/entry';
import { lampHistory } from '../codes/lampTold';
import { ofKind } from '../thread/thread';

/** What the bench has said on a case: projections from its thread. */

/** What a test says of the links of one corner. */
interface Said {
	proves: readonly Link[];
	implicates: readonly Link[];
}

function saidOf(entry: BenchTest, position: Position): Said[] {
	if (entry.kind === 'scope-capture')
		return entry.payload.channels.filter((one) => one.position === position);
	const { payload } = entry;
	const here = payload.position === position || payload.position === null;
	return here ? [{ proves: payload.proves, implicates: payload.implicates }] : [];
}

export type LinkState = 'good' | 'suspect' | 'open';

/**
 * State of each link of a corner's path by what the bench has said of it: the latest word counts. What is proven good at one
 * moment is proven for that moment; weighing all of it is another station's work.
 */
export function linksAt(entries: readonly Entry[], position: Position): Record<Link, LinkState> {
	const states = Object.fromEntries(LINKS.map((link) => [link, 'open'])) as Record<Link, LinkState>;
	for (const entry of entries) {
		if (!isBenchTest(entry)) continue;
		for (const { proves, implicates } of saidOf(entry, position)) {
			for (const link of implicates) states[link] = 'suspect';
			for (const link of proves) states[link] = 'good';
		}
	}
	return states;
}

/** Family of the sensor at a wheel: what was identified here beats what the vehicle's data say. */
export function familyAt(
	entries: Entry[],
	position: Position
): { family: SensorKind; from: 'identified' | 'vehicle' } | null {
	const told = ofKind(entries, 'sensor-identified')
		.filter(({ payload }) => payload.position === null || payload.position === position)
		.at(-1);
	if (told) return { family: told.payload.family, from: 'identified' };
	const type = typeOf(entries);
	const family = type && knownFamilyAt(type, position);
	return family ? { family, from: 'vehicle' } : null;
}

/** Plugs that tests at a corner have laid open before. */
export function exposedAt(entries: readonly Entry[], position: Position): Set<string> {
	const open = new Set<string>();
	for (const entry of entries) {
		if (entry.kind === 'meter-reading' && entry.payload.position === position)
			for (const plug of entry.payload.opened) open.add(plug);
		if (entry.kind === 'substitution' && entry.payload.position === position)
			for (const plug of entry.payload.opened) open.add(plug);
		if (entry.kind === 'harness-search' && entry.payload.position === position)
			for (const plug of entry.payload.exposed) open.add(plug);
	}
	return open;
}

/** Wheels that codes, live data, rounds and the bench point at, the most pointed at first. */
export function suspectCorners(
	entries: readonly Entry[],
	codes: readonly { corner: Position | null }[]
): Position[] {
	const votes = new Map<Position, number>();
	const vote = (position: Position | null, weight: number) => {
		if (position) votes.set(position, (votes.get(position) ?? 0) + weight);
	};
	for (const { corner } of codes) vote(corner, 3);
	for (const { corner } of lampHistory(entries)?.codes ?? []) vote(corner, 3);
	for (const entry of undisturbed(entries)) {
		if (entry.kind === 'live-recording')
			for (const { channel } of entry.payload.findings) vote(positionOf(channel), 2);
		if (entry.kind === 'wheel-round')
			for (const { position, result } of entry.payload.corners)
				if (result !== 'answers' && result !== 'turns-mate') vote(position, 2);
		if (entry.kind === 'scope-capture')
			for (const { position, findings } of channelsTold(entry.payload))
				if (findings.length > 0) vote(position, 2);
		if (isBenchTest(entry) && entry.kind !== 'scope-capture' && isBadBenchTest(entry))
			vote(entry.payload.position, 1);
	}
	return [...votes].sort((a, b) => b[1] - a[1]).map(([position]) => position);
}
