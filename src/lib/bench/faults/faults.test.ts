import { describe, expect, it } from 'vitest';
import { vehicleTypes, type VehicleType } from '../../../../library';
import { faults, LINKS, type Fault } from '../../../../library/faults';
import { repairs } from '../../../../library/repairs';
import { MINIBUS, typeOf, vehicleOf } from '../bench.fixture';
import type { BenchVehicle } from '../vehicle';
import { benchFault, parseFault, placesFor, whyNot } from './benchFault';
import { atSeverity } from './effects';
import { differences, observe, type Observations } from './observe.fixture';

const minibus = typeOf(MINIBUS);
const skiff = typeOf('velmora-skiff');
const baselines = new Map<string, Observations>();

/** What a sound vehicle of a type shows; looked at once. */
function baseline(id: string): Observations {
	let known = baselines.get(id);
	if (!known) {
		known = observe(vehicleOf(id));
		baselines.set(id, known);
	}
	return known;
}

/** A vehicle on which the fault can be, and a place where it matters. */
function placed(fault: Fault): { type: VehicleType; at: string } {
	const type = fault.sensors?.includes('two-wire') === false ? skiff : minibus;
	const places = placesFor(fault, type);
	const wanted = ['rear-left', 'F14', 'G2', 'S7', 'power-steering'];
	const at =
		wanted.find((place) => places.includes(place)) ??
		places.find((place) => place !== 'gateway') ??
		places[0];
	if (at === undefined) throw new Error(`${fault.id} has no place`);
	return { type, at };
}

/** As a careful person ends a job: coded and calibrated, codes cleared, key cycled. */
function finish(vehicle: BenchVehicle, at: string): void {
	for (const repair of ['code-module', 'calibrate']) vehicle.mend(at, repair);
	for (const module of vehicle.modules.values()) module.clear(null);
	Object.assign(vehicle.world.motion.around, { wet: 0, roughness: 0.2, outsideC: 12 });
	vehicle.world.motion.hubC = 12;
	vehicle.turnKey('off');
	vehicle.advance(2);
	vehicle.turnKey('on');
	vehicle.advance(4);
}

describe('the library of faults', () => {
	it('has at least sixty, over every link of the path and every family of sensor', () => {
		expect(faults.size).toBeGreaterThanOrEqual(60);
		expect([...new Set([...faults.values()].map((fault) => fault.link))].sort()).toEqual([...LINKS].sort());
		expect([...faults.values()].filter((fault) => fault.madeByUs).length).toBeGreaterThanOrEqual(10);
		for (const type of vehicleTypes.values()) {
			const possible = [...faults.values()].filter((fault) => placesFor(fault, type).length > 0);
			expect(possible.length, type.id).toBeGreaterThanOrEqual(60);
		}
	});

	it('names only repairs that a person can do at that kind of place', () => {
		for (const fault of faults.values()) {
			for (const id of fault.curedBy) {
				const repair = repairs.get(id);
				expect(repair, `${fault.id}: ${id}`).toBeDefined();
				expect([fault.at, 'any'], `${fault.id}: ${id}`).toContain(repair?.at);
			}
		}
	});

	it('every mode is told apart within its link', () => {
		const keys = [...faults.values()].map(({ link, mode }) => `${link}/${mode}`);
		expect(new Set(keys).size).toBe(keys.length);
	});
});

describe.each([...faults.values()].map((fault) => [fault.id, fault] as const))('%s', (_, fault) => {
	it('shows something a person could find, and nothing any more after each repair that cures it', () => {
		const { type, at } = placed(fault);
		const comesByKm = fault.when?.everyKm === undefined ? null : 0.1;
		const present = benchFault(fault.id, at, 0.75, comesByKm);
		const broken = vehicleOf(type.id, present);
		const shown = differences(baseline(type.id), observe(broken));
		expect(shown, 'no symptom').not.toEqual([]);

		const wrong = [...repairs.keys()].find(
			(id) => !fault.curedBy.includes(id) && !['calibrate', 'code-module', 'renew-module'].includes(id)
		);
		broken.mend(at, wrong ?? '');
		expect(broken.faults, `cured by ${wrong}`).toHaveLength(1);

		const [first = '', ...others] = fault.curedBy;
		broken.mend(at, first);
		finish(broken, at);
		expect(differences(baseline(type.id), observe(broken)), `after ${first}`).toEqual([]);
		for (const repair of others) {
			const again = vehicleOf(type.id, present);
			again.mend(at, repair);
			if (repair !== 'calibrate') expect(again.faults, `after ${repair}`).toEqual([]);
		}
	});
});

describe('a fault in words', () => {
	it.each([
		['lead-open:rear-left', { id: 'lead-open', at: 'rear-left', severity: 0.6, everyKm: null }],
		['ring-loose:front-right:0.4', { id: 'ring-loose', at: 'front-right', severity: 0.4, everyKm: null }],
		['sensor-dead:front-left:1:5', { id: 'sensor-dead', at: 'front-left', severity: 1, everyKm: 5 }],
		['fuse-blown:F14', { id: 'fuse-blown', at: 'F14', severity: 0.6, everyKm: null }],
		['battery-weak', { id: 'battery-weak', at: 'vehicle', severity: 0.6, everyKm: null }]
	])('%s', (text, fault) => {
		expect(parseFault(text, minibus)).toEqual(fault);
	});

	it.each([
		['rust:rear-left', /"rust" is no fault of the library/],
		['lead-open:rear-middle', /lead-open can be at front-left, front-right, rear-left, rear-right/],
		['lead-open:rear-left:2', /severity 0–1/],
		['lead-open:rear-left:0.5:0', /ID:PLACE:SEVERITY:KM/],
		['sensor-coil-open:rear-left', /this vehicle cannot have sensor-coil-open/],
		['terminator-missing:cluster', /can be at gateway, brake/]
	])('%s is refused with what was expected', (text, reason) => {
		expect(() => parseFault(text, minibus)).toThrow(reason);
	});

	it('a trailer has corners of its own', () => {
		const trailer = typeOf('hexley-drover');
		expect(whyNot(benchFault('lead-open', 'axle2-right'), trailer)).toBeNull();
		expect(whyNot(benchFault('lead-open', 'rear-left'), trailer)).toMatch(/axle1-left/);
	});
});

describe('severity', () => {
	it('is even in ratio between values above zero, even in steps otherwise', () => {
		expect(atSeverity([10, 1000], 0.5)).toBeCloseTo(100, 9);
		expect(atSeverity([0, 8], 0.25)).toBe(2);
		expect(atSeverity([3, 9], 0)).toBe(3);
		expect(atSeverity([3, 9], 1)).toBeCloseTo(9, 9);
	});
});
