import { knownSenseOhms } from '../../../../../library/vehicle/known';
import { knownFamilyAt } from '../../../../../library/wheelSensors';
import type { Position } from '../../../../../library/positions';
import { scopeOutcome } from '../../../../../library/reason/liveSigns';
import { signKey, type Seen } from '../../../../../library/reason/signs';
import type { Around } from '../kind';
import type { ScopeCapture } from './payload';

export function scopeSeen(payload: ScopeCapture, { type }: Pick<Around, 'type'>): Seen {
	const sensorAt = (position: Position) => ({
		family: knownFamilyAt(type, position),
		senseResistorOhms: knownSenseOhms(type)
	});
	return Object.fromEntries(
		payload.channels.flatMap((channel) => {
			const { position, at } = channel;
			if (!position || at === 'elsewhere') return [];
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
