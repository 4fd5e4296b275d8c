import { describe, expect, it } from 'vitest';
import { addressOf, ask, codesOf, MINIBUS, statusOf, valueOf, vehicleOf } from '../../bench.fixture';
import { benchFault } from '../../faults/benchFault';
import type { BenchVehicle } from '../../vehicle';
import { securityKey } from '../../../core/uds/securityKey';

const BRAKE = 0x1010;
const STEERING = 0x1020;

const hex = (value: number, bytes: number) =>
	(
		value
			.toString(16)
			.toUpperCase()
			.padStart(bytes * 2, '0')
			.match(/../g) ?? []
	).join(' ');

/** Extended session, seed asked for, key sent. */
function unlock(vehicle: BenchVehicle, address = BRAKE): string {
	ask(vehicle, address, '10 03');
	const seed = parseInt(ask(vehicle, address, '27 01').replace(/ /g, '').slice(4), 16);
	return ask(vehicle, address, `27 02 ${hex(securityKey(seed), 2)}`);
}

describe('security access', () => {
	it('has the key of the standard’s example: seed 36 57, key C9 A9', () => {
		expect(securityKey(0x3657)).toBe(0xc9a9);
	});

	it('opens with the right key, and a second seed is then zero', () => {
		const vehicle = vehicleOf(MINIBUS);
		expect(unlock(vehicle)).toBe('67 02');
		expect(ask(vehicle, BRAKE, '27 01')).toBe('67 01 00 00');
	});

	it('gives the same seeds for the same vehicle, and other ones each time', () => {
		const seeds = () => {
			const vehicle = vehicleOf(MINIBUS);
			ask(vehicle, BRAKE, '10 03');
			return [ask(vehicle, BRAKE, '27 01'), ask(vehicle, BRAKE, '27 01')];
		};
		const [first, second] = seeds();
		expect(first).not.toBe(second);
		expect(seeds()).toEqual([first, second]);
	});

	it('refuses a key without a seed, a wrong key, and after three of them waits ten seconds', () => {
		const vehicle = vehicleOf(MINIBUS);
		ask(vehicle, BRAKE, '10 03');
		expect(ask(vehicle, BRAKE, '27 02 12 34')).toBe('7F 27 24');
		const wrong = () => {
			ask(vehicle, BRAKE, '27 01');
			return ask(vehicle, BRAKE, '27 02 00 00');
		};
		expect([wrong(), wrong(), wrong()]).toEqual(['7F 27 35', '7F 27 35', '7F 27 36']);
		expect(ask(vehicle, BRAKE, '27 01')).toBe('7F 27 37');
		for (let i = 0; i < 4; i++) {
			vehicle.advance(3);
			ask(vehicle, BRAKE, '3E 00');
		}
		expect(ask(vehicle, BRAKE, '27 01')).toMatch(/^67 01/);
	});

	it('locks again when the session ends, by itself after five seconds of silence', () => {
		const vehicle = vehicleOf(MINIBUS);
		unlock(vehicle);
		vehicle.advance(6);
		expect(ask(vehicle, BRAKE, '2E D1 51 30')).toBe('7F 2E 7F');
		ask(vehicle, BRAKE, '10 03');
		expect(ask(vehicle, BRAKE, '2E D1 51 30')).toBe('7F 2E 33');
	});
});

describe('writing data', () => {
	it('is done once unlocked, is told first as still working, and stays when the power is off', () => {
		const vehicle = vehicleOf(MINIBUS);
		unlock(vehicle);
		const answers = vehicle.request(BRAKE, Uint8Array.of(0x2e, 0xd1, 0x51, 48))?.map(({ bytes }) => bytes);
		expect(answers).toEqual([
			[0x7f, 0x2e, 0x78],
			[0x6e, 0xd1, 0x51]
		]);
		vehicle.advance(0.1);
		vehicle.turnKey('off');
		vehicle.advance(1);
		vehicle.turnKey('on');
		vehicle.advance(1);
		expect(ask(vehicle, BRAKE, '22 D1 51')).toBe('62 D1 51 30');
	});

	it('coded for 48 teeth where 46 are fitted, every speed is 46/48 of the truth', () => {
		const vehicle = vehicleOf(MINIBUS);
		unlock(vehicle);
		ask(vehicle, BRAKE, '2E D1 51 30');
		vehicle.spin('front-left', 20);
		vehicle.advance(3);
		expect(valueOf(vehicle, 'brake', 'D101')).toBeCloseTo((20 * 46) / 48, 1);
	});

	it.each([
		['2E D1 50', '7F 2E 13', 'nothing to write'],
		['2E D1 51 30 30', '7F 2E 13', 'too long'],
		['2E D1 01 00 00', '7F 2E 31', 'not to be written'],
		['2E AB CD 00', '7F 2E 31', 'unknown']
	])('%s is answered %s: %s', (request, expected) => {
		const vehicle = vehicleOf(MINIBUS);
		unlock(vehicle);
		expect(ask(vehicle, BRAKE, request)).toBe(expected);
	});

	it('is refused while the vehicle moves', () => {
		const vehicle = vehicleOf(MINIBUS);
		vehicle.drive([
			{ toKmh: 30, overS: 3 },
			{ toKmh: 30, overS: 60 }
		]);
		vehicle.advance(4);
		unlock(vehicle);
		expect(ask(vehicle, BRAKE, '2E D1 51 30')).toBe('7F 2E 22');
	});

	it('a module that was never coded says so, reads nothing as its coding, and is quiet once coded and cleared', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('module-not-coded', 'brake'));
		expect(codesOf(vehicle)['brake']).toContain('455055');
		expect(valueOf(vehicle, 'brake', 'D150')).toBeNull();
		unlock(vehicle);
		ask(vehicle, BRAKE, `2E D1 50 ${hex(2130, 2)}`);
		vehicle.advance(0.1);
		ask(vehicle, BRAKE, '2E D1 51 2E');
		vehicle.advance(0.1);
		const variant = [...vehicle.world.type.id.slice(-8)].map((sign) => hex(sign.charCodeAt(0), 1)).join(' ');
		ask(vehicle, BRAKE, `2E D1 52 ${variant}`);
		vehicle.advance(0.1);
		ask(vehicle, BRAKE, '31 01 02 03');
		vehicle.advance(2);
		ask(vehicle, BRAKE, '14 FF FF FF');
		vehicle.advance(3);
		expect(codesOf(vehicle)['brake']).toBeUndefined();
	});
});

describe('routines', () => {
	it('start, run, and tell their result', () => {
		const vehicle = vehicleOf(MINIBUS);
		ask(vehicle, STEERING, '10 03');
		expect(ask(vehicle, STEERING, '31 03 02 01')).toBe('7F 31 24');
		expect(ask(vehicle, STEERING, '31 01 02 01')).toBe('71 01 02 01 00');
		expect(ask(vehicle, STEERING, '31 03 02 01')).toBe('71 03 02 01 00');
		vehicle.advance(1.5);
		expect(ask(vehicle, STEERING, '31 03 02 01')).toBe('71 03 02 01 01');
		expect(ask(vehicle, STEERING, '31 02 02 01')).toBe('71 02 02 01');
	});

	it('a steering angle that was never reset is right after the routine, and its code can be cleared', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('steering-angle-off-centre', 'steering-angle', 0));
		expect(valueOf(vehicle, 'steering-angle', 'D110')).toBeCloseTo(9.5, 1);
		ask(vehicle, STEERING, '10 03');
		ask(vehicle, STEERING, '31 01 02 01');
		vehicle.advance(2);
		expect(valueOf(vehicle, 'steering-angle', 'D110')).toBeCloseTo(0, 1);
		expect(valueOf(vehicle, 'steering-angle', 'D160')).toBeCloseTo(9.5, 1);
	});

	it('are refused without their preconditions', () => {
		const weak = vehicleOf(MINIBUS, benchFault('battery-weak', 'vehicle', 0.2));
		ask(weak, STEERING, '10 03');
		expect(ask(weak, STEERING, '31 01 02 01')).toBe('7F 31 93');
		const moving = vehicleOf(MINIBUS);
		moving.drive([
			{ toKmh: 20, overS: 2 },
			{ toKmh: 20, overS: 60 }
		]);
		moving.advance(3);
		ask(moving, STEERING, '10 03');
		expect(ask(moving, STEERING, '31 01 02 01')).toBe('7F 31 22');
	});

	it.each([
		['31 01 02 01', '7F 31 7F', 'the default session'],
		['31 01', '7F 31 13', 'no number'],
		['31 07 02 01', '7F 31 12', 'an unknown part']
	])('%s is answered %s: %s', (request, expected) => {
		expect(ask(vehicleOf(MINIBUS), STEERING, request)).toBe(expected);
	});

	it('the bleeding routine runs the pump, which is heard, and fails without its feed', () => {
		const bleed = (vehicle: BenchVehicle) => {
			ask(vehicle, BRAKE, '10 03');
			ask(vehicle, BRAKE, '31 01 02 04');
			vehicle.advance(1);
			const heard = vehicle.state.felt.includes('pump runs');
			ask(vehicle, BRAKE, '3E 00');
			vehicle.advance(4.5);
			return [heard, ask(vehicle, BRAKE, '31 03 02 04')];
		};
		expect(bleed(vehicleOf(MINIBUS))).toEqual([true, '71 03 02 04 01']);
		expect(bleed(vehicleOf(MINIBUS, benchFault('pump-feed-open', 'brake')))).toEqual([
			false,
			'71 03 02 04 02'
		]);
	});
});

describe('outputs', () => {
	it('lamps light while a tester holds them, and go out with the session', () => {
		const vehicle = vehicleOf(MINIBUS);
		const cluster = addressOf(vehicle, 'cluster');
		expect(ask(vehicle, cluster, '2F D1 E1 03 01')).toBe('7F 2F 7F');
		ask(vehicle, cluster, '10 03');
		expect(ask(vehicle, cluster, '2F D1 E1 03 01')).toBe('6F D1 E1 03 01');
		expect(Object.values(vehicle.state.lamps).every(Boolean)).toBe(true);
		expect(ask(vehicle, cluster, '2F D1 E1 00')).toBe('6F D1 E1 00 00');
		expect(Object.values(vehicle.state.lamps).some(Boolean)).toBe(false);
		ask(vehicle, cluster, '2F D1 E1 03 01');
		vehicle.advance(6);
		expect(Object.values(vehicle.state.lamps).some(Boolean)).toBe(false);
		expect(ask(vehicle, cluster, '2F D1 E7 03 01')).toBe('7F 2F 7F');
	});
});

describe('periodic reading', () => {
	const rate = (request: string, seconds = 2) => {
		const vehicle = vehicleOf(MINIBUS);
		ask(vehicle, BRAKE, '10 03');
		expect(ask(vehicle, BRAKE, request)).toBe('6A');
		let first = 0;
		for (let i = 0; i < seconds * 100; i++) {
			vehicle.advance(0.01);
			first += vehicle.takePeriodic().filter(({ bytes }) => bytes[0] === 0x01).length;
		}
		return first / seconds;
	};

	it('sends one value fifty times a second, and eight an eighth as often as the slots allow', () => {
		expect(rate('2A 03 01')).toBeCloseTo(50, 0);
		expect(rate('2A 03 01 02 03 04 10 11 13 14')).toBeCloseTo(100 / 8, 0);
		expect(rate('2A 02 01', 4)).toBeCloseTo(5, 0);
		expect(rate('2A 01 01', 4)).toBeCloseTo(1, 0);
	});

	it('sends the number and the value’s bytes', () => {
		const vehicle = vehicleOf(MINIBUS);
		ask(vehicle, BRAKE, '10 03');
		ask(vehicle, BRAKE, '2A 03 01 22');
		vehicle.spin('front-left', 12);
		vehicle.advance(2);
		const [last, before] = vehicle.takePeriodic().reverse();
		const speed = [last, before].find((message) => message?.bytes[0] === 0x01)?.bytes;
		expect(speed).toHaveLength(3);
		expect((((speed?.[1] ?? 0) << 8) | (speed?.[2] ?? 0)) / 100).toBeCloseTo(12, 0);
	});

	it('stops when told, and with the session', () => {
		const vehicle = vehicleOf(MINIBUS);
		ask(vehicle, BRAKE, '10 03');
		ask(vehicle, BRAKE, '2A 03 01 02');
		ask(vehicle, BRAKE, '2A 04 01');
		vehicle.takePeriodic();
		vehicle.advance(1);
		expect(new Set(vehicle.takePeriodic().map(({ bytes }) => bytes[0]))).toEqual(new Set([0x02]));
		vehicle.advance(6);
		vehicle.takePeriodic();
		vehicle.advance(1);
		expect(vehicle.takePeriodic()).toEqual([]);
	});

	it.each([
		['2A 03 01', '7F 2A 7F', false],
		['2A 09 01', '7F 2A 31', true],
		['2A 03', '7F 2A 13', true],
		['2A 03 EE', '7F 2A 31', true]
	])('%s is answered %s', (request, expected, extended) => {
		const vehicle = vehicleOf(MINIBUS);
		if (extended) ask(vehicle, BRAKE, '10 03');
		expect(ask(vehicle, BRAKE, request)).toBe(expected);
	});
});

describe('reading data', () => {
	it('takes longer for more identifiers, and refuses more than fit', () => {
		const vehicle = vehicleOf(MINIBUS);
		const after = (ids: number) =>
			vehicle.request(
				BRAKE,
				Uint8Array.from([0x22, ...Array.from({ length: ids }, () => [0xd1, 0x01]).flat()])
			)?.[0]?.afterS ?? 0;
		expect(after(8) - after(1)).toBeCloseTo(7 * 0.006, 9);
		expect(ask(vehicle, BRAKE, `22 ${'D1 01 '.repeat(13)}`)).toBe('7F 22 14');
	});

	it('a value is frozen after a hard fault until the codes are cleared', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('lead-open', 'rear-left'));
		expect(valueOf(vehicle, 'brake', 'D103')).toBeNull();
		vehicle.mend('rear-left', 'renew-lead');
		vehicle.spin('rear-left', 12);
		vehicle.advance(2);
		expect(valueOf(vehicle, 'brake', 'D103')).toBeNull();
		expect(statusOf(vehicle, BRAKE, '404513') & 0x01).toBe(0);
		vehicle.spin('rear-left', 0);
		vehicle.advance(1);
		ask(vehicle, BRAKE, '14 FF FF FF');
		vehicle.spin('rear-left', 12);
		vehicle.advance(2);
		expect(valueOf(vehicle, 'brake', 'D103')).toBeCloseTo(12, 0);
	});
});
