import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { Position } from '../../../../library';
import { scopeProbe } from '../../../../library/measurePoints';
import { scopeOutcome } from '../../../../library/reason/liveSigns';
import { analyseCapture } from '../../core/scope/analyseCapture';
import { BenchScope } from '../instruments/scope';
import type { BenchVehicle } from '../vehicle';

const RATE_HZ = 20_000;
const DURATION_S = 2;
const TURNED_KMH = 20;
const RUNS_UP_S = 2;
/** Turns a wheel by hand and captures its signal at a place, and looks through it as the product does. */
export function scopeByHand(vehicle: BenchVehicle, position: Position, at: 'sensor' | 'module'): string {
	const { type } = vehicle.world;
	const wheel = type.wheels.find((one) => one.position === position);
	vehicle.spin(position, TURNED_KMH);
	vehicle.advance(RUNS_UP_S);
	const taken = new BenchScope(vehicle).capture({
		probes: [scopeProbe(type, position, at, likeliestFamilyAt(type, position))],
		rateHz: RATE_HZ,
		durationS: DURATION_S
	});
	vehicle.spin(position, 0);
	vehicle.advance(RUNS_UP_S);
	if (!taken.ok || !wheel) throw new Error(taken.ok ? `no wheel ${position}` : taken.error);
	const [channel] = analyseCapture(
		{
			rateHz: RATE_HZ,
			startS: 0,
			channels: [{ name: position, volts: taken.value.channels[0] ?? new Float32Array() }]
		},
		{ teeth: wheel.ringTeeth }
	).channels;
	if (!channel) return 'flat';
	const expectedHz = (wheel.ringTeeth * TURNED_KMH) / 3.6 / wheel.circumferenceM;
	return scopeOutcome(
		channel,
		{ family: likeliestFamilyAt(type, position), senseResistorOhms: type.senseResistorOhms },
		expectedHz
	);
}
