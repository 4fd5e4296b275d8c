import type { VehicleType } from '../../../../../library/index';
import { roadOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import type { LiveRecording } from './payload';

/** Shorter than this a recording says nothing of a drive. */
const LEAST_DRIVE_S = 20;

/** Whether a recording was made on the road. */
export const isDrive = ({ durationS, notes }: LiveRecording): boolean =>
	durationS >= LEAST_DRIVE_S && !notes.some(({ text }) => text.includes('on stands'));

export function roadSeen(payload: LiveRecording, type: VehicleType): Seen {
	return Object.fromEntries(
		type.wheels.flatMap(({ position }) => {
			const channel = position.replace('-', '_');
			return payload.channels.includes(channel)
				? [[signKey('road', position), roadOutcome(payload.findings, channel)]]
				: [];
		})
	);
}
