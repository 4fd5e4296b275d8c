import { channelOf } from '../../../../../library/positions';
import type { VehicleType } from '../../../../../library/index';
import { roadOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import { wiggledPlaces } from '../../../core/live/wiggle';
import type { LiveRecording, Moved, Purpose } from './payload';

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
/** A wheel that never turned shows nothing, whatever is moved. */
const STOOD = 'stuck-zero';

/** What each place did that a hand was put on while the value was watched: one at which it changed is the place. */
export function wiggleSeen({ purpose, marks, findings }: LiveRecording): Seen {
	const { what, position, places = [] } = purpose ?? {};
	if (what !== 'wiggle' || !position) return {};
	const own = findings.filter(({ channel }) => channel === channelOf(position));
	if (own.some(({ type }) => type === STOOD)) return {};
	const changed = new Set(
		wiggledPlaces(
			marks,
			own.map(({ startS }) => startS)
		).map(({ label }) => label)
	);
	const touched = new Set(marks.map(({ label }) => label));
	const seen: Seen = {};
	for (const { label, is } of places.filter((one) => touched.has(one.label))) {
		const key = signKey(WIGGLES[is], position);
		if (changed.has(label)) seen[key] = 'changes';
		else seen[key] ??= 'steady';
	}
	return seen;
}
