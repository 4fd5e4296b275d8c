import { channelOf } from '../../../../../library/positions';
import type { VehicleType } from '../../../../../library/index';
import { roadOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import { wiggledPlaces } from '../../../core/live/wiggle';
import type { LiveRecording, Moved, Provoking, Purpose, TriedThing } from './payload';

/** Shorter than this a recording says nothing of a drive. */
const LEAST_DRIVE_S = 20;

/** Of a recording from before the fact was kept, in the words that its analysis used then. */
const SAID_ON_STANDS = 'on stands';
const onStandsOf = ({ onStands, notes }: LiveRecording): boolean =>
	onStands ?? notes.some(({ text }) => text.includes(SAID_ON_STANDS));

/** What is driven on a road; a recording that was made for anything else judges nothing but that. */
const DRIVES: readonly (Purpose['what'] | undefined)[] = [undefined, 'road-test', 'proving-drive'];

/** Whether a recording was made on the road. */
export const isDrive = (recording: LiveRecording): boolean =>
	DRIVES.includes(recording.purpose?.what) && recording.durationS >= LEAST_DRIVE_S && !onStandsOf(recording);

export function roadSeen(payload: LiveRecording, type: VehicleType): Seen {
	return Object.fromEntries(
		type.wheels.flatMap(({ position }) => {
			const channel = channelOf(position);
			return payload.channels.includes(channel)
				? [[signKey('road', position), roadOutcome(payload.findings, channel)]]
				: [];
		})
	);
}

/** The test of the library that putting a hand on it is. */
const WIGGLES: Record<Moved, string> = {
	sensor: 'wiggle-sensor',
	'sensor-plug': 'wiggle-plug',
	lead: 'wiggle-lead',
	'module-plug': 'wiggle-far'
};
const PROVOKES: Record<Exclude<Provoking, 'move'>, string> = {
	wet: 'spray',
	warm: 'warm',
	lock: 'lock',
	'in-gear': 'in-gear'
};
/** Shorter than this it says nothing that nothing changed. */
const LEAST_S = 3;
/** A wheel that never turned shows nothing, whatever is moved. */
const STOOD = 'stuck-zero';

/** What each thing did that was done while the value was watched: that at which it changed is the place. */
export function provokedSeen(recording: LiveRecording): Seen {
	const seen: Seen = {};
	for (const { position, does, is, seconds, changes } of recording.tried ?? fromBefore(recording)) {
		const test = does === 'move' ? (is ? WIGGLES[is] : null) : PROVOKES[does];
		if (test === null) continue;
		const key = signKey(test, position);
		if (changes > 0) seen[key] = 'changes';
		else if (seconds >= LEAST_S) seen[key] ??= 'steady';
	}
	return seen;
}

/** Of a recording from before its samples were looked at for it: by what the analysis of its wheel found. */
function fromBefore({ purpose, marks, findings }: LiveRecording): TriedThing[] {
	const { what, position, places = [] } = purpose ?? {};
	if (what !== 'wiggle' || !position) return [];
	const own = findings.filter(({ channel }) => channel === channelOf(position));
	if (own.some(({ type }) => type === STOOD)) return [];
	const changed = new Map(
		wiggledPlaces(
			marks,
			own.map(({ startS }) => startS)
		).map(({ label, count }) => [label, count])
	);
	const touched = new Set(marks.map(({ label }) => label));
	return places
		.filter((one) => touched.has(one.label))
		.map(({ label, is }) => ({
			position,
			does: 'move',
			...(is ? { is } : {}),
			label,
			seconds: LEAST_S,
			changes: changed.get(label) ?? 0
		}));
}
