import { hexToBytes } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { CAR_POSITIONS, identifiers } from '../../../library';
import { decodeStatus } from '../core/codes/status';
import { parseCodeList, parseExtended, parseSnapshots } from '../core/uds/readCodes';
import { ask, codesOf, driveLegs, MINIBUS, statusOf, typeOf, vehicleOf } from './bench.fixture';
import { benchFault, type BenchFault } from './faults/benchFault';
import { STRAIGHT_DRIVE } from './motion';
import { BenchVehicle } from './vehicle';

const BRAKE = 0x1010;
const CLUSTER = 0x1030;
const GATEWAY = 0x1000;

const vehicle = (...faults: BenchFault[]) => vehicleOf(MINIBUS, ...faults);
const drive = (it: BenchVehicle) => driveLegs(it, STRAIGHT_DRIVE);

const REAR_LEFT_OPEN = '404513';
const REAR_LEFT_ERRATIC = '40452F';

describe('a healthy vehicle', () => {
	it('lights its lamps at key-on for about three seconds and puts them out', () => {
		const fresh = new BenchVehicle({
			type: typeOf(MINIBUS),
			vin: '11111111111111111',
			odometerKm: 1,
			faults: []
		});
		expect(fresh.state.lamps['anti-lock']).toBe(false);
		fresh.turnKey('on');
		fresh.advance(1);
		expect(Object.values(fresh.state.lamps).every(Boolean)).toBe(true);
		fresh.advance(3);
		expect(Object.values(fresh.state.lamps).some(Boolean)).toBe(false);
	});

	it('sets no code while it sleeps, though its gateway stays awake and hears nobody', () => {
		const asleep = vehicle();
		asleep.turnKey('off');
		asleep.advance(600);
		asleep.turnKey('on');
		asleep.advance(5);
		expect(codesOf(asleep, 'AF')).toEqual({});
	});

	it('sets no code on any of six drives', () => {
		const healthy = vehicle();
		for (let i = 0; i < 6; i++) {
			healthy.turnKey('off');
			healthy.turnKey('on');
			drive(healthy);
		}
		expect(codesOf(healthy, 'AF')).toEqual({});
	});
});

describe('an open lead', () => {
	let broken: BenchVehicle;
	beforeEach(() => {
		broken = vehicle(benchFault('lead-open', 'rear-left'));
	});

	it('sets its code standing still, lights the lamps and makes codes in the listeners', () => {
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN))).toMatchObject({
			testFailed: true,
			confirmed: true
		});
		expect(broken.state.lamps['anti-lock']).toBe(true);
		expect(decodeStatus(statusOf(broken, CLUSTER, 'C41581')).testFailed).toBe(true);
	});

	it('comes back after a clear without a wheel turning', () => {
		expect(ask(broken, BRAKE, '14 FF FF FF')).toBe('54');
		broken.advance(1);
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN))).toMatchObject({
			testFailed: true,
			failedSinceClear: true
		});
	});

	it('once mended and cleared stays "not tested" until the wheel has turned, then is tested good', () => {
		broken.mend('rear-left', 'renew-lead');
		broken.advance(1);
		ask(broken, BRAKE, '14 FF FF FF');
		broken.advance(30);
		expect(statusOf(broken, BRAKE, REAR_LEFT_OPEN)).toBe(0x50);
		expect(broken.spin('rear-left', 12)).toBe(true);
		broken.advance(3);
		expect(statusOf(broken, BRAKE, REAR_LEFT_OPEN)).toBe(0x00);
	});

	it('is not cured by a new sensor', () => {
		broken.mend('rear-left', 'renew-sensor');
		ask(broken, BRAKE, '14 FF FF FF');
		broken.advance(1);
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN)).testFailed).toBe(true);
	});

	it('keeps a snapshot of the moment, and counts how often', () => {
		const snapshot = parseSnapshots(
			hexToBytes(ask(broken, BRAKE, '19 04 40 45 13 FF').replace(/ /g, '')),
			(id) => identifiers.get(id)?.bytes ?? null
		);
		expect(snapshot.ok && snapshot.value[0]?.values).toContainEqual({ id: 'D103', raw: 'FFFF' });
		const extended = parseExtended(hexToBytes(ask(broken, BRAKE, '19 06 40 45 13 FF').replace(/ /g, '')));
		expect(extended).toEqual({ ok: true, value: { occurrences: 1, ageingCycles: 0 } });
	});

	it('stays stored after the repair until cleared, and is forgotten after forty good cycles', () => {
		broken.mend('rear-left', 'renew-lead');
		drive(broken);
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN))).toMatchObject({
			testFailed: false,
			confirmed: true
		});
		for (let i = 0; i < 41; i++) {
			broken.turnKey('off');
			broken.turnKey('on');
			broken.advance(0.5);
			broken.spin('rear-left', 12);
			broken.advance(2);
		}
		// Only a clear makes its test one that has not run since the clear.
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN))).toMatchObject({
			confirmed: false,
			notTestedSinceClear: false
		});
	});
});

describe('a loose ring', () => {
	const loose = () => vehicle(benchFault('ring-loose', 'rear-left', 0.39));

	it('hides below its speed and shows above it', () => {
		const slow = loose();
		slow.drive([
			{ toKmh: 40, overS: 10 },
			{ toKmh: 40, overS: 60 }
		]);
		slow.advance(80);
		expect(statusOf(slow, BRAKE, REAR_LEFT_ERRATIC) & 0x2f).toBe(0);
		drive(slow);
		expect(decodeStatus(statusOf(slow, BRAKE, REAR_LEFT_ERRATIC)).confirmed).toBe(true);
	});

	it('does not come back at key-on', () => {
		const shown = loose();
		drive(shown);
		ask(shown, BRAKE, '14 FF FF FF');
		shown.turnKey('off');
		shown.turnKey('on');
		shown.advance(10);
		expect(statusOf(shown, BRAKE, REAR_LEFT_ERRATIC)).toBe(0x50);
	});

	it('is cured by refitting the ring, and the drive then tests it good', () => {
		const shown = loose();
		drive(shown);
		shown.mend('rear-left', 'refit-ring');
		ask(shown, BRAKE, '14 FF FF FF');
		shown.advance(1);
		drive(shown);
		expect(statusOf(shown, BRAKE, REAR_LEFT_ERRATIC)).toBe(0x00);
	});

	it('never blames another corner', () => {
		for (const position of CAR_POSITIONS) {
			const one = vehicle(benchFault('ring-loose', position, 0.46));
			drive(one);
			const list = parseCodeList(hexToBytes(ask(one, BRAKE, '19 02 08').replace(/ /g, '')));
			expect(list.ok && list.value.codes).toHaveLength(1);
		}
	});
});

describe('services, byte for byte', () => {
	it.each([
		['10 03', '50 03 00 32 01 F4'],
		['10 07', '7F 10 12'],
		['10', '7F 10 13'],
		['11 01', '51 01'],
		['3E 00', '7E 00'],
		['3E 80', ''],
		['22 F1 90', `62 F1 90${' 31'.repeat(17)}`],
		['22 AB CD', '7F 22 31'],
		['22 F1', '7F 22 13'],
		['14 12 34 56', '7F 14 31'],
		['19 02', '7F 19 13'],
		['19 55', '7F 19 12'],
		['19 04 12 34 56 FF', '7F 19 31'],
		['19 01 2F', '59 01 FF 01 00 00'],
		['19 03', '59 03'],
		['27 01', '7F 27 7F'],
		['85 01', '7F 85 11']
	])('%s is answered %s', (request, expected) => {
		expect(ask(vehicle(), BRAKE, request)).toBe(expected);
	});

	it('answers a clear with "still working" first, and is busy meanwhile', () => {
		const one = vehicle();
		expect(one.request(BRAKE, hexToBytes('14ffffff'))?.map((a) => a.bytes)).toEqual([
			[0x7f, 0x14, 0x78],
			[0x54]
		]);
		expect(ask(one, BRAKE, '14 FF FF FF')).toBe('7F 14 21');
		one.advance(0.2);
		expect(ask(one, BRAKE, '14 FF FF FF')).toBe('54');
	});

	it('refuses to clear while driving', () => {
		const one = vehicle();
		one.drive([{ toKmh: 30, overS: 5 }]);
		one.advance(4);
		expect(ask(one, BRAKE, '14 FF FF FF')).toBe('7F 14 22');
	});

	it('lets only the gateway answer with the key off', () => {
		const one = vehicle();
		one.turnKey('off');
		expect(one.request(BRAKE, hexToBytes('3e00'))).toBeNull();
		expect(ask(one, GATEWAY, '3E 00')).toBe('7E 00');
		one.turnKey('on');
		expect(ask(one, GATEWAY, '3E 00')).toBe('7E 00');
		expect(one.request(BRAKE, hexToBytes('3e00'))).toBeNull();
		one.advance(0.5);
		expect(ask(one, BRAKE, '3E 00')).toBe('7E 00');
	});

	it('takes any bytes without throwing', () => {
		const one = vehicle();
		fc.assert(
			fc.property(fc.uint8Array({ maxLength: 12 }), (bytes) => {
				one.advance(0.2);
				one.request(BRAKE, bytes);
			})
		);
	});
});

describe('a vehicle put away and taken out again', () => {
	it('is the same vehicle: faults, codes, snapshots, odometer', () => {
		const before = vehicle(benchFault('lead-open', 'rear-left'), benchFault('module-silent', 'cluster'));
		drive(before);
		const after = vehicle();
		after.recall(JSON.parse(JSON.stringify(before.memory)));
		expect(after.memory).toEqual(before.memory);
		expect(ask(after, BRAKE, '19 02 FF')).toBe(ask(before, BRAKE, '19 02 FF'));
		expect(after.request(CLUSTER, hexToBytes('3e00'))).toBeNull();
		after.advance(1);
		expect(decodeStatus(statusOf(after, BRAKE, REAR_LEFT_OPEN)).testFailed).toBe(true);
	});
});
