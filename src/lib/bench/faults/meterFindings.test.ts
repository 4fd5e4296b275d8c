import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import { describe, expect, it } from 'vitest';
import { vehicleTypes, type Position, type VehicleType } from '../../../../library';
import { measurements, type Measurement } from '../../../../library/measure';
import { hasPointsFor, wheelReaderOf } from '../../../../library/measurePoints';
import { vehicleOf } from '../bench.fixture';
import type { BenchVehicle } from '../vehicle';
import { benchFault, libraryFault } from './benchFault';
import { measureByHand } from '../technician/byMeter';

const measurementsOf = (type: VehicleType): Measurement[] =>
	measurements.filter(
		(one) => one.families.includes(likeliestFamilyAt(type, BAD)) && hasPointsFor(type, one)
	);
/** What is about the module is measured at the one that reads the wheels. */
const measure = (vehicle: BenchVehicle, position: Position, one: Measurement) =>
	measureByHand(
		vehicle,
		one.about === 'corner' ? position : (wheelReaderOf(vehicle.world.type)?.role ?? ''),
		one
	);

const MINIBUS = 'brindle-marlow-16';
const AMBULANCE = 'velmora-skiff';
const BAD: Position = 'rear-left';

const outOf = (vehicle: BenchVehicle, position: Position): string[] =>
	measurementsOf(vehicle.world.type)
		.filter((one: Measurement) => measure(vehicle, position, one).judged === 'out')
		.map(({ id }) => id);

describe('a sound vehicle', () => {
	it.each([...vehicleTypes.keys()])(
		'%s: every measurement of its family is in its window, at every corner',
		(id) => {
			const vehicle = vehicleOf(id);
			for (const { position } of vehicle.world.type.wheels)
				for (const one of measurementsOf(vehicle.world.type))
					expect(measure(vehicle, position, one), `${one.id} ${position}`).toMatchObject({ judged: 'in' });
		}
	);
});

describe('a fault that the oscilloscope does not show', () => {
	it.each([
		['sensor-leaks-wet', MINIBUS, 'insulation-feed|feed-at-sensor|feed-loaded|supply-across'],
		['sensor-leaks-wet', AMBULANCE, 'line-to-ground|coil-to-body'],
		['sensor-coil-shorted', AMBULANCE, 'coil-ohms'],
		['sensor-plug-corroded', AMBULANCE, 'loop-ohms'],
		['lead-short-to-ground', AMBULANCE, 'insulation-signal'],
		['lead-feed-short-to-ground', AMBULANCE, 'insulation-feed'],
		['lead-short-to-supply', AMBULANCE, 'line-to-ground'],
		['lead-high-resistance', AMBULANCE, 'lead-feed'],
		['middle-plug-corroded', AMBULANCE, 'lead-signal'],
		['module-plug-water', MINIBUS, 'insulation-feed|feed-at-module'],
		['module-plug-water', AMBULANCE, 'insulation-feed|line-to-ground']
	])('%s on %s is found by the meter', (fault, vehicleId, wanted) => {
		const vehicle = vehicleOf(vehicleId, benchFault(fault, BAD, 0.6));
		const soak = () => {
			if (libraryFault(fault).when?.wet !== undefined) {
				vehicle.spray(BAD);
				vehicle.spray('brake');
				vehicle.advance(2);
			}
		};
		soak();
		const out = outOf(vehicle, BAD);
		expect(
			out.some((id) => wanted.split('|').includes(id)),
			out.join(', ')
		).toBe(true);
	});
});

describe('a fault on the way', () => {
	it.each([
		['lead-open', 'lead-feed'],
		['lead-return-open', 'lead-signal'],
		['lead-short-to-ground', 'insulation-signal'],
		['lead-feed-short-to-ground', 'insulation-feed'],
		['lead-wires-touch', 'wires-apart'],
		['lead-high-resistance', 'lead-feed'],
		['middle-plug-corroded', 'lead-signal'],
		['sensor-dead', 'level-standing']
	])('%s puts %s out of its window, and the mate stays in', (fault, id) => {
		const vehicle = vehicleOf(MINIBUS, benchFault(fault, BAD, 0.6));
		expect(outOf(vehicle, BAD)).toContain(id);
		expect(outOf(vehicle, 'rear-right')).toEqual([]);
	});

	it('no measurement of the circuit condemns anything for a ring, a gap or a tyre', () => {
		for (const fault of ['ring-tooth-missing', 'gap-rust', 'tyre-temporary-spare'])
			expect(outOf(vehicleOf(MINIBUS, benchFault(fault, BAD, 0.6)), BAD), fault).toEqual([]);
	});
});
