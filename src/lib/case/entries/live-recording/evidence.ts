import { channelOf } from '../../../../../library/positions';
import type { VehicleType } from '../../../../../library/index';
import { roadOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import type { LiveRecording } from './payload';

/** Shorter than this a recording says nothing of a drive. */
const LEAST_DRIVE_S = 20;

/** Of a recording from before the fact was kept, in the words that its analysis used then. */
const SAID_ON_STANDS = 'on stands';
const onStandsOf = ({ onStands, notes }: LiveRecording): boolean =>
	onStands ?? notes.some(({ text }) => text.includes(SAID_ON_STANDS));

/** Whether a recording was made on the road. */
export const isDrive = (recording: LiveRecording): boolean =>
	recording.durationS >= LEAST_DRIVE_S && !onStandsOf(recording);

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
