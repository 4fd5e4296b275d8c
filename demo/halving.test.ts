import { describe, expect, it } from 'vitest';
import { wirePath } from '../library/measurePoints';
import type { Position } from '../library';
import {
	FAULT_RULES,
	foundAt,
	planSearch,
	readsAs,
	type HarnessFault
} from '../src/lib/case/measure/harnessPlan';
import type { PointReading } from '../src/lib/core/electrical/halving';
import { OVER_RANGE } from '../src/lib/case/measure/reading';
import { vehicleOf } from '../src/lib/bench/bench.fixture';
import { BenchMeter } from '../src/lib/bench/instruments/meter';
import { holdSource } from '../src/lib/bench/instruments/source';
import type { BenchVehicle } from '../src/lib/bench/vehicle';
import { benchFault } from '../src/lib/bench/faults/benchFault';

const MINIBUS = 'brindle-marlow-16';
const AT: Position = 'rear-left';
const RESISTOR_OHMS = 750;

/** What hands do before the search begins. */
function setUp(vehicle: BenchVehicle, wire: 'feed' | 'signal', fault: HarnessFault): void {
	vehicle.turnKey('off');
	if (fault === 'short') {
		vehicle.plug(AT, false);
		vehicle.plug('brake', false);
	} else {
		if (fault === 'open' || wire === 'signal') vehicle.plug(AT, false);
		vehicle.turnKey('on');
		if (wire === 'signal')
			holdSource(vehicle, { kind: 'resistor', a: `${AT}.1:w`, b: `${AT}.2:w`, ohms: RESISTOR_OHMS });
	}
	vehicle.advance(1);
}

/** Follows the plan to its end, measuring on the bench. */
function search(vehicle: BenchVehicle, wire: 'feed' | 'signal', fault: HarnessFault) {
	setUp(vehicle, wire, fault);
	const meter = new BenchMeter(vehicle);
	const read = (node: string) => {
		const taken = meter.read({ mode: FAULT_RULES[fault].mode, red: node, black: 'body' });
		if (!taken.ok) throw new Error(taken.error);
		return taken.value.value;
	};
	const path = wirePath(vehicle.world.type, AT, wire);
	const readings: Record<string, PointReading> = {};
	for (let steps = 0; steps < 12; steps++) {
		const plan = planSearch(path, wire, fault, readings, []);
		const step = plan.next[0];
		if (plan.found || !step) return { ...foundAt(plan.places, plan.between), steps };
		if (fault === 'short') vehicle.plug(step.point.split('.')[0] ?? '', false);
		vehicle.advance(0.5);
		const fed = wire === 'feed' ? read('front-left.1:w') : read(`${AT}.2:w`);
		const reads = readsAs(fault, read(step.point) ?? OVER_RANGE, fed ?? 0);
		if (!reads) throw new Error(`the meter cannot tell at ${step.point}`);
		readings[step.point] = reads;
	}
	throw new Error('the search does not end');
}

describe('halving a harness on the bench', () => {
	it.each([
		['lead-open', 'feed', 'open', /white wire between plug X21, wheel side and wire at the sensor/],
		[
			'lead-return-open',
			'signal',
			'open',
			/wire between wire at the sensor.s plug and plug X21, wheel side|X21, wheel side and wire at the sensor/
		],
		['lead-high-resistance', 'feed', 'resistance', /between plug X21, wheel side and wire at the sensor/],
		['middle-plug-corroded', 'signal', 'resistance', /plug itself: X20/],
		['lead-short-to-ground', 'signal', 'short', /between plug X21, module side and/],
		['lead-feed-short-to-ground', 'feed', 'short', /between plug X21, module side and/]
	] as const)('%s on the %s wire, looked for as %s', (fault, wire, kind, says) => {
		const vehicle = vehicleOf(MINIBUS, benchFault(fault, AT, 0.8));
		const found = search(vehicle, wire, kind);
		expect(found.says).toMatch(says);
		expect(found.steps).toBeLessThanOrEqual(6);
	});

	it('every path of every wheel runs from the module to the sensor, plugs in pairs', () => {
		const { type } = vehicleOf(MINIBUS).world;
		for (const { position } of type.wheels) {
			const path = wirePath(type, position, 'feed');
			expect(path[0]?.node).toMatch(/^brake\.\d+$/);
			expect(path.at(-1)?.node).toBe(`${position}.1`);
			expect(path.filter(({ node }) => node.endsWith(':a'))).toHaveLength(
				path.filter(({ node }) => node.endsWith(':b')).length
			);
		}
	});
});
