import { describe, expect, it } from 'vitest';
import { scopeProbe } from '../../../../library/measurePoints';
import type { SensorKind } from '../../../../library/sensorKinds';
import { withFamilyAt } from '../../../../library/wheelSensors';
import type { ChannelAnalysis } from '../../core/scope/findings';
import { analyseCapture } from '../../core/scope/analyseCapture';
import { typeOf } from '../bench.fixture';
import { benchFault, type BenchFault } from '../faults/benchFault';
import { LARGEST_GAP_MM } from '../physics/ring';
import { BenchVehicle } from '../vehicle';
import { BenchScope } from './scope';

const RATE_HZ = 200_000;
const KINDS = ['two-wire-direction', 'two-wire-pulse-width'] as const;

/** The wheel at the rear left of a vehicle with sensors of a kind, turned by hand and seen at its module. */
function seen(
	kind: SensorKind,
	kmh: number,
	{
		faults = [],
		noiseVolts = 0.003,
		gapMm,
		durationS = 2
	}: { faults?: BenchFault[]; noiseVolts?: number; gapMm?: number; durationS?: number } = {}
): ChannelAnalysis {
	const known = withFamilyAt(typeOf('norvane-lichen'), 'rear-left', kind);
	const wheels = known.wheels.map((one) => ({ ...one, gapMm: gapMm ?? one.gapMm }));
	const type = { ...known, wheels };
	const vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 1000, faults });
	vehicle.turnKey('on');
	vehicle.advance(4);
	vehicle.spin('rear-left', kmh);
	vehicle.advance(2);
	const probe = scopeProbe(type, 'rear-left', 'module', kind);
	const taken = new BenchScope(vehicle).capture({ probes: [probe], rateHz: RATE_HZ, durationS, noiseVolts });
	if (!taken.ok) throw new Error(taken.error);
	const wheel = type.wheels.find(({ position }) => position === 'rear-left');
	const volts = taken.value.channels[0] ?? new Float32Array();
	const { channels } = analyseCapture(
		{ rateHz: RATE_HZ, startS: 0, channels: [{ name: 'rear_left', volts }] },
		{ teeth: wheel?.ringTeeth }
	);
	const [channel] = channels;
	if (!channel) throw new Error('nothing taken');
	return channel;
}

describe.each(KINDS)('a wheel with a sensor of the kind %s', (kind) => {
	it.each([5, 10, 20, 40, 90, 160])('turned forwards at %s km/h says so, and nothing is found', (kmh) => {
		const { says, findings } = seen(kind, kmh);
		expect(findings).toEqual([]);
		expect(says?.direction?.forwards).toBeGreaterThan(10);
		expect(says).toMatchObject({ wrong: 0, weak: 0, direction: { backwards: 0, changesAt: [] } });
	});

	it('turned backwards says that', () => {
		const { says } = seen(kind, -10);
		expect(says).toMatchObject({ wrong: 0, direction: { forwards: 0, changesAt: [] } });
	});

	it('standing says that it stands', () => {
		const { kind: shape, pulses, says } = seen(kind, 0);
		expect([shape, pulses]).toEqual(['flat', 0]);
		expect(says?.standing).toBeGreaterThan(1);
	});

	it('says that its field is weak before teeth are lost', () => {
		const { says, findings } = seen(kind, 20, { gapMm: 0.95 * LARGEST_GAP_MM });
		expect(findings).toEqual([]);
		expect(says?.weak).toBe(says?.read);
		expect(says?.read).toBeGreaterThan(20);
	});

	it('lacks a tooth that is gone', () => {
		const { findings } = seen(kind, 20, { faults: [benchFault('ring-tooth-missing', 'rear-left', 1)] });
		expect(findings.map(({ type, perRev }) => [type, perRev])).toEqual([['missing-tooth', true]]);
	});

	it('is read through noise of 40 mV', () => {
		const { says, findings } = seen(kind, 20, { noiseVolts: 0.04 });
		expect(findings).toEqual([]);
		expect(says?.read).toBeGreaterThan(100);
		expect((says?.wrong ?? 0) / (says?.read ?? 1)).toBeLessThan(0.05);
	});
});
