import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { faults, LINKS } from '../../../../library/faults';
import { repairs } from '../../../../library/repairs';
import { codesOf, MINIBUS, typeOf, vehicleOf } from '../bench.fixture';
import { placesFor } from '../../../../library/faultPlaces';
import { benchFault, libraryFault, parseFault, whyNot } from './benchFault';
import { atSeverity } from './effects';
import { baseline } from './life.fixture';
import { differences, observe } from './observe.fixture';

const minibus = typeOf(MINIBUS);

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

describe('on the other vehicles', () => {
	const few = [
		'lead-high-resistance',
		'ring-moved',
		'encoder-dust',
		'sensor-plug-loose',
		'middle-plug-corroded',
		'tyre-other-size'
	];
	const others = [...vehicleTypes.values()].filter(({ id }) => id !== MINIBUS);
	it.each(others.flatMap((type) => few.map((id) => [type.id, id] as const)))(
		'%s with %s shows it',
		(id, fault) => {
			const at = placesFor(libraryFault(fault), typeOf(id)).at(-1) ?? '';
			expect(differences(baseline(id), observe(vehicleOf(id, benchFault(fault, at, 0.8))))).not.toEqual([]);
		}
	);
});

describe('corrosion', () => {
	it('grows with the kilometres until it shows', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('sensor-plug-corroded', 'rear-left', 0.05));
		expect(codesOf(vehicle)).toEqual({});
		vehicle.world.motion.odometerM += 15_000_000;
		vehicle.advance(1);
		expect(vehicle.faults[0]?.severity).toBeCloseTo(0.05 + 0.03 * 15, 6);
		expect(codesOf(vehicle)['brake']).toEqual(['404513']);
	});
});

describe('several at once', () => {
	it('show together, and each is cured for itself', () => {
		const vehicle = vehicleOf(
			MINIBUS,
			benchFault('lead-open', 'front-left'),
			benchFault('sensor-dead', 'rear-right'),
			benchFault('fuse-blown', 'F15')
		);
		vehicle.advance(2);
		expect(codesOf(vehicle)['brake']?.sort()).toEqual(['403513', '405013', 'C12387']);
		vehicle.mend('front-left', 'renew-lead');
		expect(vehicle.faults.map(({ id }) => id)).toEqual(['sensor-dead', 'fuse-blown']);
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

	it('gets its place from chance where none is named, always one it can be at', () => {
		const at = [0, 0.3, 0.6, 0.99].map((share) => parseFault('lead-open', minibus, () => share).at);
		expect(at).toEqual(['front-left', 'front-right', 'rear-left', 'rear-right']);
		expect(parseFault('yaw-zero-off', minibus, () => 0.7).at).toBe('yaw');
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
