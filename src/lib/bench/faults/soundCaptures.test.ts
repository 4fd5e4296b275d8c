import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { scopeProbe } from '../../../../library/measurePoints';
import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import { analyseCapture } from '../../core/scope/analyseCapture';
import { vehicleOf } from '../bench.fixture';
import { BenchScope } from '../instruments/scope';

const SPEEDS_KMH = [5, 10, 20, 30, 40];
const RATES_HZ = [2_000, 5_000, 20_000];
/** What one digit of the instrument is: fine, twelve bits and eight bits over a wide range. */
const DIGITS_V = [0, 0.02, 0.08];

/** A sound wheel turned by hand, seen at its module. */
function captured(typeId: string, position: string, kmh: number, rateHz: number): Float32Array {
	const vehicle = vehicleOf(typeId);
	const { type } = vehicle.world;
	const wheel = type.wheels.find((one) => one.position === position);
	if (!wheel) throw new Error(`no wheel ${position}`);
	vehicle.spin(wheel.position, kmh);
	vehicle.advance(2);
	const probe = scopeProbe(type, wheel.position, 'module', likeliestFamilyAt(type, wheel.position));
	const taken = new BenchScope(vehicle).capture({ probes: [probe], rateHz, durationS: 1.5 });
	if (!taken.ok) throw new Error(taken.error);
	return taken.value.channels[0] ?? new Float32Array();
}

describe('a sound signal has no finding, whatever the vehicle, the speed and the instrument', () => {
	it.each([...vehicleTypes.values()].map(({ id }) => id))('%s', (id) => {
		const type = vehicleTypes.get(id);
		const wheel = type?.wheels[0];
		if (!type || !wheel) throw new Error(id);
		// Pulses of a few ten microseconds: a slow instrument sees none, and its captures are no evidence.
		const rates = likeliestFamilyAt(type, wheel.position) === 'two-wire-direction' ? [20_000] : RATES_HZ;
		const bad: string[] = [];
		for (const kmh of SPEEDS_KMH)
			for (const rateHz of rates) {
				const volts = captured(id, wheel.position, kmh, rateHz);
				for (const digitV of DIGITS_V) {
					const seen = digitV === 0 ? volts : volts.map((v) => Math.round(v / digitV) * digitV);
					const { channels } = analyseCapture(
						{ rateHz, startS: 0, channels: [{ name: 'wheel', volts: seen }] },
						{ teeth: wheel.ringTeeth }
					);
					for (const { type: what } of channels[0]?.findings ?? [])
						bad.push(`${what} at ${kmh} km/h, ${rateHz} a second, digits of ${digitV} V`);
				}
			}
		expect(bad).toEqual([]);
	});

	it('sampled too slowly for its pulses it says so, and no jump', () => {
		const volts = captured('norvane-lichen', 'front-left', 20, 5_000);
		const { channels, verdict } = analyseCapture(
			{ rateHz: 5_000, startS: 0, channels: [{ name: 'wheel', volts }] },
			{}
		);
		expect(channels[0]).toMatchObject({ tooSlow: true, findings: [] });
		expect(verdict).toContain('sampled too slowly');
	});
});
