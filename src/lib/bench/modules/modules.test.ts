import { describe, expect, it } from 'vitest';
import { ask, codesOf, driveLegs, MINIBUS, typeOf, valueOf, vehicleOf } from '../bench.fixture';
import { benchFault } from '../faults/benchFault';
import { randomDrive } from '../randomDrive';
import { BenchVehicle } from '../vehicle';
import { vehicleTypes } from '../../../../library';
import { Messages } from './messages';
import { oddOneOut, steeringYaw } from './plausibility';

describe('messages on the bus', () => {
	const everybody = [
		[true, true],
		[true, true]
	];
	const said = { vehicleKmh: 10, brakeBar: 0, pedal: false };

	it('are heard until half a second after the last', () => {
		const bus = new Messages(['gateway', 'brake']);
		expect(bus.read('gateway', 'brake', 0)).toBeNull();
		bus.send('brake', said, true, [], 1, everybody, false);
		expect(bus.read('gateway', 'brake', 1.4)?.said.vehicleKmh).toBe(10);
		expect(bus.read('gateway', 'brake', 1.6)).toBeNull();
	});

	it('count up to fifteen and begin again; a frozen sender’s counter stands', () => {
		const bus = new Messages(['gateway', 'brake']);
		for (let i = 0; i < 18; i++) bus.send('brake', said, true, [], i, everybody, false);
		expect(bus.read('gateway', 'brake', 17)?.counter).toBe(1);
		bus.frozen.add('brake');
		bus.send('brake', said, true, [], 20, everybody, false);
		expect(bus.read('gateway', 'brake', 20)).toMatchObject({ counter: 1, movedAtS: 17 });
	});

	it('are not heard by whom no level reaches, and are counted when destroyed', () => {
		const bus = new Messages(['gateway', 'brake']);
		bus.send(
			'brake',
			said,
			true,
			[],
			1,
			[
				[true, false],
				[true, true]
			],
			false
		);
		expect(bus.read('gateway', 'brake', 1)).toBeNull();
		bus.send('brake', said, true, [], 2, everybody, true);
		expect(bus.read('gateway', 'brake', 2)).toBeNull();
		expect(bus.errors).toBe(1);
	});
});

describe('listeners', () => {
	it('set codes of their own when a sender is lost, and heal when it is back', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('fuse-blown', 'F15'));
		vehicle.advance(2);
		expect(codesOf(vehicle, '01')).toEqual({ gateway: ['C12387'], brake: ['C12387'] });
		vehicle.mend('F15', 'renew-fuse');
		vehicle.advance(3);
		expect(codesOf(vehicle, '01')).toEqual({});
		expect(codesOf(vehicle)).toEqual({ gateway: ['C12387'], brake: ['C12387'] });
	});

	it('a gateway without power leaves its listeners behind it deaf to the other segment', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('fuse-blown', 'F12'));
		vehicle.advance(2);
		const engine = vehicle.module('engine');
		expect(engine?.monitors.find(({ rule }) => rule.dtc === 'C12187')?.failing).toBe(true);
		expect(vehicle.reachable(0x1010)).toBe(false);
	});

	it('a cluster that hears no brake control lights its lamps by itself and shows no speed', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('module-silent', 'brake'));
		expect(vehicle.state.lamps).toMatchObject({
			brake: true,
			'anti-lock': true,
			stability: true,
			engine: false
		});
		vehicle.drive([
			{ toKmh: 40, overS: 4 },
			{ toKmh: 40, overS: 5 }
		]);
		vehicle.advance(7);
		expect(vehicle.state.felt).toContain('speedometer is dead');
	});

	it('power steering without a speed helps as at fifty', () => {
		const amps = (...faults: ReturnType<typeof benchFault>[]) => {
			const vehicle = vehicleOf(MINIBUS, ...faults);
			vehicle.world.motion.steeringDeg = 100;
			return valueOf(vehicle, 'power-steering', 'D171') ?? 0;
		};
		expect(amps() / amps(benchFault('module-silent', 'brake'))).toBeCloseTo(8 / (8 - 50 / 15), 1);
	});

	it('a module below six and a half volts resets, and wakes again when the supply is back', () => {
		const vehicle = vehicleOf(MINIBUS);
		vehicle.network.setOhms('F31', 30);
		vehicle.rewired();
		vehicle.advance(1);
		expect(vehicle.reachable(0x1010)).toBe(false);
		vehicle.network.setOhms('F31', null);
		vehicle.rewired();
		vehicle.advance(0.1);
		expect(vehicle.reachable(0x1010)).toBe(false);
		vehicle.advance(0.4);
		expect(vehicle.reachable(0x1010)).toBe(true);
	});
});

describe('who turns at another rate than the two that agree', () => {
	it.each([
		[{ wheels: 0.05, steering: 0.05, sensor: 0.05 }, 'none'],
		[{ wheels: 0.05, steering: 0.15, sensor: 0.05 }, 'steering'],
		[{ wheels: 0.05, steering: 0.05, sensor: -0.05 }, 'sensor'],
		[{ wheels: 0.4, steering: 0, sensor: 0.01 }, 'wheels'],
		[{ wheels: 0.05, steering: 0.15, sensor: 0.25 }, null],
		[{ wheels: 0.3, steering: 0.5, sensor: 0.3 }, null]
	])('%o: %s', (vote, odd) => {
		expect(oddOneOut(vote, 15)).toBe(odd);
	});

	it('steering gives v·tan δ/L when slow', () => {
		const type = typeOf(MINIBUS);
		expect(steeringYaw(type, 1, 175)).toBeCloseTo(Math.tan((10 * Math.PI) / 180) / (3.66 + 0.0025), 6);
	});
});

describe('a vehicle without faults', () => {
	it.each([...vehicleTypes.keys()])('%s drives a day of all weathers and stores nothing', (id) => {
		const type = typeOf(id);
		const vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 10, faults: [], seed: 3 });
		vehicle.turnKey('on');
		vehicle.advance(2);
		driveLegs(
			vehicle,
			randomDrive(vehicle.world.random, 12, type.chassis.steeringRatio, type.chassis.wheelbaseM)
		);
		expect(vehicle.state.odometerKm).toBeGreaterThan(10 + 11);
		expect(codesOf(vehicle, 'AF')).toEqual({});
	});

	it('is the same vehicle for the same seed', () => {
		const live = () => {
			const vehicle = vehicleOf('norvane-lichen', benchFault('sensor-dies-at-random', 'rear-left', 0.5, 0.2));
			driveLegs(vehicle, [
				{ toKmh: 50, overS: 10 },
				{ toKmh: 50, overS: 60 }
			]);
			return [codesOf(vehicle), ask(vehicle, 0x0e28, '22 D1 03 F4 A6')];
		};
		expect(live()).toEqual(live());
	});
});

describe('a trailer', () => {
	it('reads its own four wheels by axle and says a lost one in its maker’s code', () => {
		const vehicle = vehicleOf('hexley-drover', benchFault('lead-open', 'axle2-right'));
		expect(codesOf(vehicle)).toEqual({ 'trailer-brake': ['5C1413'] });
		vehicle.spin('axle1-left', 20);
		vehicle.advance(2);
		expect(valueOf(vehicle, 'trailer-brake', 'D121')).toBeCloseTo(20, 0);
		expect(valueOf(vehicle, 'trailer-brake', 'D124')).toBeNull();
		expect(vehicle.state.lamps.brake).toBe(true);
	});
});

describe('other families of sensors', () => {
	it.each(['norvane-lichen', 'velmora-skiff', 'ottaro-pip', 'norvane-heath'])(
		'%s: each corner follows its own wheel',
		(id) => {
			const vehicle = vehicleOf(id);
			for (const [position, did] of [
				['front-left', 'D101'],
				['rear-right', 'D104']
			] as const) {
				vehicle.spin(position, 25);
				vehicle.advance(2);
				expect(valueOf(vehicle, 'brake', did)).toBeCloseTo(25, 0);
			}
		}
	);

	it('a passive sensor is blind at walking pace, an active one not', () => {
		const slow = (id: string) => {
			const vehicle = vehicleOf(id);
			vehicle.spin('front-left', 1.2);
			vehicle.advance(3);
			return valueOf(vehicle, 'brake', 'D101');
		};
		expect(slow('velmora-skiff')).toBe(0);
		expect(slow(MINIBUS)).toBeCloseTo(1.2, 0);
	});

	it.each([
		['velmora-skiff', 'lead-open', '404513'],
		['velmora-skiff', 'lead-short-to-ground', '404511'],
		['velmora-skiff', 'lead-short-to-supply', '404512'],
		['velmora-skiff', 'sensor-coil-open', '404513'],
		['ottaro-pip', 'lead-feed-short-to-ground', '404511'],
		['ottaro-pip', 'lead-short-to-supply', '404512'],
		['norvane-lichen', 'lead-return-open', '404513'],
		['norvane-lichen', 'lead-short-to-ground', '404511'],
		['norvane-lichen', 'lead-wires-touch', '404512']
	])('%s with %s is known at key-on: %s', (id, fault, code) => {
		const vehicle = vehicleOf(id, benchFault(fault, 'rear-left'));
		expect(codesOf(vehicle)['brake']).toEqual([code]);
	});

	it('a three-wire line that is broken shows only when the wheel ought to turn', () => {
		const vehicle = vehicleOf('ottaro-pip', benchFault('lead-return-open', 'rear-left'));
		expect(codesOf(vehicle)['brake']).toBeUndefined();
		driveLegs(vehicle, [
			{ toKmh: 30, overS: 8 },
			{ toKmh: 30, overS: 6 },
			{ toKmh: 0, overS: 8 }
		]);
		expect(codesOf(vehicle)['brake']).toEqual(['404531']);
	});
});
