import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { lampMeaning, lampTables } from '../../../../library/lampTables';
import { readFlashes, type Flash } from '../../core/blink/readFlashes';
import { benchFault } from '../faults/benchFault';
import { BenchVehicle } from '../vehicle';

const type = vehicleTypes.get('norvane-wold');
const table = lampTables.get('norvane-pedal');
if (!type || !table) throw new Error('no pick-up');
const RIGHT_HOLD_S = 3;

function pickUp(...faults: Parameters<typeof benchFault>[]): BenchVehicle {
	if (!type) throw new Error('no pick-up');
	return new BenchVehicle({
		type,
		vin: '11111111111111111',
		odometerKm: 240_000,
		faults: faults.map((fault) => benchFault(...fault))
	});
}
const foot = (vehicle: BenchVehicle, pressed: boolean, seconds: number) => {
	vehicle.world.motion.footOnPedal = pressed;
	vehicle.advance(seconds);
};
function press(vehicle: BenchVehicle, times: number, everyS = 0.5): void {
	for (let i = 0; i < times; i++) {
		foot(vehicle, true, everyS / 2);
		foot(vehicle, false, everyS / 2);
	}
}
/** Pedal held, key on, let go after so long. */
function holdOverKeyOn(vehicle: BenchVehicle, seconds = RIGHT_HOLD_S): void {
	vehicle.turnKey('off');
	vehicle.advance(2);
	vehicle.world.motion.footOnPedal = true;
	vehicle.advance(0.1);
	vehicle.turnKey('on');
	vehicle.advance(seconds);
	foot(vehicle, false, 0.5);
}
/** Looks at the lamp as eyes do, and reads it by the table. */
function read(vehicle: BenchVehicle, seconds = 40): string[] {
	const flashes: Flash[] = [];
	let lit = vehicle.state.lamps['anti-lock'];
	for (let s = 0; s < seconds; s += 0.02) {
		vehicle.advance(0.02);
		const now = vehicle.state.lamps['anti-lock'];
		if (now && !lit) flashes.push({ onS: s, offS: null });
		const last = flashes.at(-1);
		if (!now && lit && last) last.offS = s;
		lit = now;
	}
	const found = readFlashes(flashes);
	if (!found.ok) return [];
	return found.value.codes.map(({ groups }) =>
		table ? (lampMeaning(table, groups)?.words ?? groups.join('-')) : ''
	);
}

describe('a pick-up from before the network', () => {
	it('tells all its codes by lamp, one after the other, when the pedal asks for them', () => {
		const vehicle = pickUp(['lead-open', 'front-right'], ['lead-short-to-ground', 'rear-left']);
		holdOverKeyOn(vehicle);
		press(vehicle, 3);
		vehicle.advance(2);
		expect(read(vehicle).sort()).toEqual([
			'front right sensor, open or shorted',
			'rear left sensor, open or shorted'
		]);
	});

	it.each([
		['too short a hold', 1, 3, 0.5],
		['too long a hold', 10, 3, 0.5],
		['two presses', RIGHT_HOLD_S, 2, 0.5],
		['four presses', RIGHT_HOLD_S, 4, 0.5],
		['presses too slow', RIGHT_HOLD_S, 3, 3]
	])('%s: it tells nothing', (_what, heldS, presses, everyS) => {
		const vehicle = pickUp();
		holdOverKeyOn(vehicle, heldS);
		press(vehicle, presses, everyS);
		vehicle.advance(2);
		expect(read(vehicle, 20)).toEqual([]);
	});

	it('forgets after eight presses; what is not repaired is there again, what is repaired is gone', () => {
		const vehicle = pickUp(['lead-open', 'front-right']);
		const tell = () => {
			holdOverKeyOn(vehicle);
			press(vehicle, 3);
			vehicle.advance(2);
			return read(vehicle);
		};
		const forget = () => {
			vehicle.turnKey('off');
			vehicle.advance(2);
			vehicle.turnKey('on');
			vehicle.advance(0.5);
			press(vehicle, 8, 0.4);
			vehicle.advance(3);
		};
		expect(tell()).toEqual(['front right sensor, open or shorted']);
		forget();
		expect(tell()).toEqual(['front right sensor, open or shorted']);
		vehicle.mend('front-right', 'renew-lead');
		vehicle.advance(2);
		expect(tell()).toEqual(['front right sensor, open or shorted']);
		forget();
		expect(tell()).toEqual(['no fault is kept']);
	});

	it('its check mode keeps the lamp lit until every sensor was heard in both bands of speed', () => {
		const check = (...faults: Parameters<typeof benchFault>[]) => {
			const vehicle = pickUp(...faults);
			holdOverKeyOn(vehicle);
			press(vehicle, 5);
			vehicle.advance(2);
			const waits = vehicle.state.lamps['anti-lock'];
			vehicle.drive([
				{ toKmh: 5, steeringDeg: 0, overS: 3 },
				{ toKmh: 5, steeringDeg: 0, overS: 9 }
			]);
			vehicle.advance(11);
			const afterSlow = vehicle.state.lamps['anti-lock'];
			vehicle.drive([
				{ toKmh: 50, steeringDeg: 0, overS: 15 },
				{ toKmh: 50, steeringDeg: 0, overS: 12 }
			]);
			vehicle.advance(26);
			return [waits, afterSlow, vehicle.state.lamps['anti-lock']];
		};
		expect(check()).toEqual([true, true, false]);
		expect(check(['lead-open', 'rear-right'])).toEqual([true, true, true]);
	});

	it('nobody reaches it by a link, and its lamp checks itself at key-on', () => {
		const vehicle = pickUp();
		vehicle.turnKey('on');
		vehicle.advance(0.5);
		expect(vehicle.state).toMatchObject({ selfCheck: true, lamps: { 'anti-lock': true } });
		vehicle.advance(3);
		expect(vehicle.state).toMatchObject({ selfCheck: false, lamps: { 'anti-lock': false } });
		expect(vehicle.request(0x0e28, Uint8Array.of(0x3e, 0))).toBeNull();
	});
});
