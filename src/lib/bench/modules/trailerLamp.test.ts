import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { lampMeaning, lampTables } from '../../../../library/lampTables';
import { readFlashes, type Flash } from '../../core/blink/readFlashes';
import { benchFault } from '../faults/benchFault';
import { BenchVehicle } from '../vehicle';

const table = lampTables.get('hexley-trailer');
const type = vehicleTypes.get('hexley-drover');
if (!type || !table) throw new Error('no trailer');
const WATCHED_S = 40;

function trailer(...faults: Parameters<typeof benchFault>[]): BenchVehicle {
	if (!type) throw new Error('no trailer');
	const vehicle = new BenchVehicle({
		type,
		vin: '11111111111111111',
		odometerKm: 5,
		faults: faults.map((fault) => benchFault(...fault))
	});
	vehicle.turnKey('on');
	vehicle.advance(6);
	return vehicle;
}
function bridge(vehicle: BenchVehicle, seconds: number): void {
	vehicle.bridge(true);
	vehicle.advance(seconds);
	vehicle.bridge(false);
}
/** Watches the lamp as eyes do, and reads it. */
function watch(vehicle: BenchVehicle): string {
	const flashes: Flash[] = [];
	let lit = vehicle.state.lamps.brake;
	for (let s = 0; s < WATCHED_S; s += 0.02) {
		vehicle.advance(0.02);
		const now = vehicle.state.lamps.brake;
		if (now && !lit) flashes.push({ onS: s, offS: null });
		const last = flashes.at(-1);
		if (!now && lit && last) last.offS = s;
		lit = now;
	}
	const read = readFlashes(flashes);
	return read.ok ? read.value.groups.join('-') : read.error;
}
const saysOf = (code: string) => table && lampMeaning(table, code.split('-').map(Number))?.words;

describe('a trailer that tells its codes by lamp', () => {
	it('shows one fault at a time: repaired and reset, it shows the next, until there is none', () => {
		const vehicle = trailer(['lead-open', 'axle1-right'], ['lead-short-to-ground', 'axle2-left']);
		const repair = { 'axle 1 right': 'axle1-right', 'axle 2 left': 'axle2-left' } as const;
		const seen: string[] = [];
		for (let i = 0; i < 2; i++) {
			bridge(vehicle, 2);
			const says = saysOf(watch(vehicle)) ?? '';
			seen.push(says);
			const where = says.split(':')[0] as keyof typeof repair;
			vehicle.mend(repair[where], 'renew-lead');
			vehicle.advance(3);
			bridge(vehicle, 5);
			vehicle.advance(2);
		}
		expect(seen.sort()).toEqual([
			'axle 1 right: circuit open or shorted',
			'axle 2 left: circuit open or shorted'
		]);
		bridge(vehicle, 2);
		expect(saysOf(watch(vehicle))).toBe('no fault is shown');
	});

	it('without the repair the same is there again after a reset', () => {
		const vehicle = trailer(['lead-open', 'axle1-right']);
		bridge(vehicle, 2);
		const first = watch(vehicle);
		bridge(vehicle, 5);
		vehicle.advance(5);
		bridge(vehicle, 2);
		expect(watch(vehicle)).toBe(first);
	});

	it('its valves click as it wakes, and do not while it is asked for codes: that is no dead module', () => {
		const vehicle = trailer();
		const wake = () => {
			vehicle.turnKey('off');
			vehicle.advance(5);
			vehicle.turnKey('on');
			vehicle.advance(1);
			return vehicle.state.felt;
		};
		expect(wake()).toContain('valves click');
		vehicle.advance(3);
		expect(vehicle.state.felt).toEqual([]);
		vehicle.bridge(true);
		expect(wake()).toEqual([]);
		expect(vehicle.state.lamps.brake || vehicle.reachable(0x1610)).toBe(true);
	});

	it('a bridge that is too short does nothing; a car has no such plug', () => {
		const vehicle = trailer();
		bridge(vehicle, 0.5);
		vehicle.advance(5);
		expect(vehicle.state.lamps.brake).toBe(false);
		const minibus = vehicleTypes.get('brindle-marlow-16');
		if (!minibus) throw new Error('no minibus');
		const car = new BenchVehicle({ type: minibus, vin: '11111111111111111', odometerKm: 5, faults: [] });
		expect(car.bridge(true)).toBe(false);
	});
});
