import { knownSenseOhms } from '../../../../../library/vehicle/known';
import { knownFamilyAt } from '../../../../../library/wheelSensors';
import type { Position } from '../../../../../library/positions';
import { speaksInPulses } from '../../../../../library/sensorKinds';
import { scopeOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import type { Around } from '../kind';
import type { ScopeCapture } from './payload';

/** Nothing pulses, and nobody has said that the wheels turned: it shows a wheel that stands as well as a dead one. */
export const isAtRest = ({
	channels,
	turned
}: Pick<ScopeCapture, 'turned'> & { channels: readonly { kind: string }[] }): boolean =>
	turned !== true && channels.every(({ kind }) => kind === 'flat');

/** Channels of a capture that say something of their wheel: of one at rest none does, nor one whose sensor says that it stands. */
export const channelsTold = (capture: ScopeCapture): ScopeCapture['channels'] =>
	isAtRest(capture)
		? []
		: capture.channels.filter(
				({ tooSlow, says }) => !tooSlow && !(capture.turned !== true && says && says.standing === says.read)
			);

/** Its pulses are of a few ten microseconds: sampled more slowly it may show none at all, or some. */
const DIRECTION_FROM_HZ = 15_000;

export function scopeSeen(payload: ScopeCapture, { type }: Pick<Around, 'type'>): Seen {
	const sensorAt = (position: Position) => ({
		family: knownFamilyAt(type, position),
		senseResistorOhms: knownSenseOhms(type)
	});
	return Object.fromEntries(
		channelsTold(payload).flatMap((channel) => {
			const { position, at } = channel;
			if (!position || at === 'elsewhere') return [];
			if (speaksInPulses(sensorAt(position).family) && payload.rateHz < DIRECTION_FROM_HZ) return [];
			// Turned together, as on the road: the mate's pulses say how many there should be.
			const mate = payload.channels.find(
				(one) => one.position !== null && one.position !== position && one.findings.length === 0
			);
			return [
				[signKey(`scope-${at}`, position), scopeOutcome(channel, sensorAt(position), mate?.medianHz ?? null)]
			];
		})
	);
}
