import { hexToBytes } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { vehicleTypes, type Position } from '../../../library';
import { decodeStatus } from '../core/codes/status';
import { parseCodeList, parseExtended, parseSnapshots } from '../core/uds/readCodes';
import type { BenchFault } from './faults';
import { STRAIGHT_DRIVE } from './motion';
import { loopCurrentA, toothFrequencyHz } from './physics/wheelSensor';
import { BenchVehicle } from './vehicle';

const BRAKE = 0x1010;
const CLUSTER = 0x1030;
const GATEWAY = 0x1000;

function vehicle(...faults: BenchFault[]): BenchVehicle {
	const type = vehicleTypes.get('brindle-marlow-16');
	if (!type) throw new Error('the minibus is missing from the library');
	const made = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 1000, faults });
	made.turnKey('on');
	made.advance(4);
	return made;
}

/** The last answer to a request, in hex. */
function ask(from: BenchVehicle, address: number, request: string): string {
	const answers = from.request(address, hexToBytes(request.replace(/ /g, '')));
	return (answers?.at(-1)?.bytes ?? []).map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');
}

function statusOf(from: BenchVehicle, address: number, dtc: string): number {
	const list = parseCodeList(hexToBytes(ask(from, address, '19 0A').replace(/ /g, '')));
	const found = list.ok ? list.value.codes.find((code) => code.dtc === dtc) : undefined;
	if (!found) throw new Error(`${dtc} is not supported`);
	return found.status;
}

function drive(it: BenchVehicle): void {
	it.drive(STRAIGHT_DRIVE);
	it.advance(250);
}

const REAR_LEFT_OPEN = '404513';
const REAR_LEFT_ERRATIC = '40452F';

describe('the physics of a corner', () => {
	const circuit = {
		ringTeeth: 46,
		circumferenceM: 2.0,
		senseResistorOhms: 115,
		leadOhms: 0.4,
		gapMm: 1.1,
		gapSwingMmAt100: 0,
		sensorWorks: true
	};

	it('gives N·v/C pulses a second', () => {
		expect(toothFrequencyHz(circuit, 10)).toBeCloseTo((46 * 10) / 2, 9);
	});

	it('lets the sensor set 7 and 14 mA, and an open lead stop both', () => {
		expect(loopCurrentA(circuit, 12.5, false)).toBeCloseTo(0.007, 9);
		expect(loopCurrentA(circuit, 12.5, true)).toBeCloseTo(0.014, 9);
		expect(loopCurrentA({ ...circuit, leadOhms: 1e7 }, 12.5, true)).toBeLessThan(1e-5);
	});
});

describe('a healthy vehicle', () => {
	it('lights its lamps at key-on for about three seconds and puts them out', () => {
		const type = vehicleTypes.get('brindle-marlow-16')!;
		const fresh = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 1, faults: [] });
		expect(fresh.state.lamps['anti-lock']).toBe(false);
		fresh.turnKey('on');
		fresh.advance(1);
		expect(fresh.state.lamps).toEqual({ 'anti-lock': true, stability: true });
		fresh.advance(3);
		expect(fresh.state.lamps).toEqual({ 'anti-lock': false, stability: false });
	});

	it('sets no code while it sleeps, though its gateway stays awake and hears nobody', () => {
		const asleep = vehicle();
		asleep.turnKey('off');
		asleep.advance(600);
		asleep.turnKey('on');
		asleep.advance(5);
		for (const address of asleep.modules.keys()) expect(ask(asleep, address, '19 01 AF')).toMatch(/00 00$/);
	});

	it('sets no code on any of thirty drives', () => {
		const healthy = vehicle();
		for (let i = 0; i < 30; i++) {
			healthy.turnKey('off');
			healthy.turnKey('on');
			drive(healthy);
		}
		for (const address of healthy.modules.keys()) {
			expect(ask(healthy, address, '19 01 AF')).toMatch(/00 00$/);
		}
	});
});

describe('an open lead', () => {
	let broken: BenchVehicle;
	beforeEach(() => {
		broken = vehicle({ kind: 'lead-open', position: 'rear-left' });
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
			(id) => ({ F40D: 1, F442: 2, F4A6: 4, D101: 2, D102: 2, D103: 2, D104: 2 })[id] ?? null
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
			drive(broken);
		}
		expect(decodeStatus(statusOf(broken, BRAKE, REAR_LEFT_OPEN)).confirmed).toBe(false);
	});
});

describe('a loose ring', () => {
	const loose = () => vehicle({ kind: 'ring-loose', position: 'rear-left', aboveKmh: 50 });

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
		for (const position of ['front-left', 'front-right', 'rear-left', 'rear-right'] as Position[]) {
			const one = vehicle({ kind: 'ring-loose', position, aboveKmh: 45 });
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
		['27 01', '7F 27 11']
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
		const before = vehicle(
			{ kind: 'lead-open', position: 'rear-left' },
			{ kind: 'module-silent', role: 'cluster' }
		);
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
