import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { valueOf, vehicleOf } from '../bench.fixture';
import { benchFault } from '../faults/benchFault';
import { coilOhms } from '../physics/wheelCircuit';
import type { BenchVehicle } from '../vehicle';
import { BenchMeter } from './meter';
import { probePoints } from './points';
import { BenchScope } from './scope';
import { holdSource } from './source';
import { highShare } from './waveform';
import type { MeterRequest, ScopeRequest } from '../../core/electrical/ports';

const MARLOW = 'brindle-marlow-16';
const LICHEN = 'norvane-lichen';
const PIP = 'ottaro-pip';
const SKIFF = 'velmora-skiff';

const meter = (vehicle: BenchVehicle, mode: MeterRequest['mode'], red: string, black = 'body') => {
	const read = new BenchMeter(vehicle).read({ mode, red, black });
	if (!read.ok) throw new Error(read.error);
	return read.value;
};
const capture = (vehicle: BenchVehicle, request: Partial<ScopeRequest> & { tips: string[] }) => {
	const taken = new BenchScope(vehicle).capture({
		probes: request.tips.map((tip) => ({ tip })),
		rateHz: 50_000,
		durationS: 0.5,
		noiseVolts: 0,
		...request
	});
	if (!taken.ok) throw new Error(taken.error);
	return taken.value;
};
const spinning = (vehicle: BenchVehicle, position: string, kmh: number) => {
	vehicle.spin(position, kmh);
	vehicle.advance(2);
	return vehicle;
};
const extremes = (volts: Float32Array | undefined) => {
	const list = volts ?? new Float32Array(1);
	return { low: list.reduce((a, b) => Math.min(a, b)), high: list.reduce((a, b) => Math.max(a, b)) };
};
const rises = (volts: Float32Array | undefined) => {
	const { low, high } = extremes(volts);
	const middle = (low + high) / 2;
	const at: number[] = [];
	for (let i = 1; volts && i < volts.length; i++) {
		if ((volts[i - 1] ?? 0) < middle && (volts[i] ?? 0) >= middle) at.push(i);
	}
	return at;
};

describe('a meter', () => {
	it('reads a divider: the bias of a passive sensor’s two lines', () => {
		const vehicle = vehicleOf(SKIFF);
		const coil = coilOhms(1100, 12);
		// 5 V over 10 kΩ, the coil beside the input’s 100 kΩ, and 10 kΩ.
		const across = 1 / (1 / coil + 1 / 100_000);
		expect(meter(vehicle, 'volts-dc', 'brake.15', 'brake.16').value).toBeCloseTo(
			(5 * across) / (20_000 + across),
			2
		);
	});

	it('reads the coil with the plug open, and corrects by nothing: 1100 Ω at 20 °C are 1065 Ω at 12 °C', () => {
		const vehicle = vehicleOf(SKIFF);
		vehicle.plug('rear-left', false);
		expect(meter(vehicle, 'ohms', 'rear-left.1', 'rear-left.2').value).toBeCloseTo(
			1100 * (1 + 0.00393 * (12 - 20)),
			-1
		);
	});

	it('makes nonsense of ohms on a live circuit, and is right once the key is off', () => {
		const vehicle = vehicleOf(MARLOW);
		const live = meter(vehicle, 'ohms', 'brake.16', 'brake.2').value;
		vehicle.turnKey('off');
		const dead = meter(vehicle, 'ohms', 'brake.16', 'brake.2').value;
		expect(dead).toBeGreaterThan(100);
		expect(dead).toBeLessThan(116);
		expect(Math.abs((live ?? 0) - (dead ?? 0))).toBeGreaterThan(500);
	});

	it('an active sensor alone reads megohms, which proves nothing', () => {
		for (const id of [MARLOW, LICHEN, PIP]) {
			const vehicle = vehicleOf(id);
			vehicle.plug('rear-left', false);
			expect(meter(vehicle, 'ohms', 'rear-left.1', 'rear-left.2').value).toBeGreaterThan(1e6);
		}
	});

	it('shows the average of two current levels while the wheel turns, neither of them', () => {
		const vehicle = spinning(vehicleOf(MARLOW), 'rear-left', 12);
		const average = meter(vehicle, 'volts-dc', 'brake.16', 'brake.2').value ?? 0;
		const { low, high } = extremes(capture(vehicle, { tips: ['brake.16'] }).channels[0]);
		// The module’s ground stands some millivolts above the body.
		expect(low).toBeCloseTo(0.007 * 115, 1);
		expect(high).toBeCloseTo(0.014 * 115, 1);
		expect(average).toBeGreaterThan(low + 0.1);
		expect(average).toBeLessThan(high - 0.1);
	});

	it('reads twice the alternating volts at twice the speed of a passive sensor, less its own fall above 1 kHz', () => {
		const slow =
			meter(spinning(vehicleOf(SKIFF), 'rear-left', 8), 'volts-ac', 'brake.15', 'brake.16').value ?? 0;
		const fast =
			meter(spinning(vehicleOf(SKIFF), 'rear-left', 16), 'volts-ac', 'brake.15', 'brake.16').value ?? 0;
		const f = (44 * (8 / 3.6)) / 2.02;
		expect(fast / slow).toBeCloseTo((2 * Math.hypot(1, f / 1000)) / Math.hypot(1, (2 * f) / 1000), 2);
	});

	it('put into a fuse reads what the module behind it draws', () => {
		const vehicle = vehicleOf(MARLOW);
		expect(meter(vehicle, 'amps', 'F31').value).toBeCloseTo(0.9, 1);
		vehicle.turnKey('off');
		expect(Math.abs(meter(vehicle, 'amps', 'F31').value ?? 1)).toBeLessThan(0.001);
	});

	it('finds 60 Ω of bus with the key off, 120 Ω with a terminator open, none with the lines touching', () => {
		const ohms = (...faults: Parameters<typeof benchFault>[]) => {
			const vehicle = vehicleOf(MARLOW, ...faults.map((fault) => benchFault(...fault)));
			vehicle.turnKey('off');
			return meter(vehicle, 'ohms', 'yaw.3:w', 'yaw.4:w').value ?? Infinity;
		};
		expect(ohms()).toBeCloseTo(60, -1);
		expect(ohms(['terminator-missing', 'brake'])).toBeCloseTo(120, -1);
		expect(ohms(['bus-lines-touch', 'yaw', 1])).toBeLessThan(1);
	});

	it('halving finds a break: fed before it, not behind it', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('lead-open', 'rear-left'));
		expect(meter(vehicle, 'volts-dc', 'X21.1:b').value).toBeGreaterThan(11);
		expect(meter(vehicle, 'volts-dc', 'rear-left.1:w').value).toBeLessThan(0.5);
	});

	it('refuses a point that this vehicle does not have', () => {
		expect(new BenchMeter(vehicleOf(MARLOW)).read({ mode: 'ohms', red: 'X77.1', black: 'body' }).ok).toBe(
			false
		);
		expect(new BenchMeter(vehicleOf(MARLOW)).read({ mode: 'amps', red: 'F99', black: '' }).ok).toBe(false);
	});
});

describe('an oscilloscope', () => {
	it('sees N·v/C waves a second', () => {
		const vehicle = spinning(vehicleOf(MARLOW), 'rear-left', 10);
		const { channels } = capture(vehicle, { tips: ['brake.16'], durationS: 2 });
		const at = rises(channels[0]);
		const hertz = ((at.length - 1) * 50_000) / ((at.at(-1) ?? 0) - (at[0] ?? 0));
		expect(hertz).toBeCloseTo((46 * (10 / 3.6)) / 2.13, 1);
	});

	it('a passive wave grows with speed and falls with gap by exp(−2π·Δg/λ)', () => {
		const peak = (kmh: number, ...faults: ReturnType<typeof benchFault>[]) => {
			const taken = new BenchScope(spinning(vehicleOf(SKIFF, ...faults), 'rear-left', kmh)).capture({
				probes: [{ tip: 'brake.15', clip: 'brake.16' }],
				rateHz: 50_000,
				durationS: 0.5,
				noiseVolts: 0
			});
			if (!taken.ok) throw new Error(taken.error);
			const { low, high } = extremes(taken.value.channels[0]);
			return high - low;
		};
		expect(peak(16) / peak(8)).toBeCloseTo(2, 1);
		const pitchMm = (2 * Math.PI * 45) / 44;
		expect(peak(8, benchFault('gap-rust', 'rear-left', 0)) / peak(8)).toBeCloseTo(
			Math.exp((-2 * Math.PI * 1.8) / pitchMm),
			2
		);
	});

	it('a missing tooth is one gap of two periods in each turn', () => {
		const vehicle = spinning(
			vehicleOf(MARLOW, benchFault('ring-tooth-missing', 'rear-left', 0)),
			'rear-left',
			10
		);
		const at = rises(capture(vehicle, { tips: ['brake.16'], durationS: 2 }).channels[0]);
		const periods = at.slice(1).map((sample, i) => sample - (at[i] ?? 0));
		const usual = [...periods].sort((a, b) => a - b)[periods.length >> 1] ?? 1;
		const long = periods.flatMap((period, i) => (period > 1.5 * usual ? [i] : []));
		expect(long.every((i) => Math.abs((periods[i] ?? 0) / usual - 2) < 0.02)).toBe(true);
		// 45 pulses between one long gap and the next.
		expect(long.slice(1).map((i, k) => i - (long[k] ?? 0))).toEqual(long.slice(1).map(() => 45));
	});

	it('a three-wire line swings from its pull-up to nearly zero', () => {
		const { low, high } = extremes(
			capture(spinning(vehicleOf(PIP), 'rear-left', 10), { tips: ['brake.16'] }).channels[0]
		);
		expect(high).toBeCloseTo(8, 1);
		expect(low).toBeLessThan(0.2);
	});

	it('the bus idles at 2.5 V and is driven apart to 3.5 and 1.5 V', () => {
		const { channels } = capture(vehicleOf(MARLOW), {
			tips: ['brake.3', 'brake.4'],
			rateHz: 2_000_000,
			durationS: 0.01
		});
		const [high, low] = channels.map(extremes);
		expect(high?.low).toBeCloseTo(2.5, 1);
		expect(high?.high).toBeCloseTo(3.5, 1);
		expect(low?.low).toBeCloseTo(1.5, 1);
		expect(low?.high).toBeCloseTo(2.5, 1);
	});

	it('begins a tenth before its trigger', () => {
		const vehicle = spinning(vehicleOf(MARLOW), 'rear-left', 10);
		const trigger = { probe: 0, volts: 1.2, slope: 'rising' as const };
		const { channels, triggerAtS } = capture(vehicle, { tips: ['brake.16'], durationS: 0.1, trigger });
		expect(triggerAtS).toBeCloseTo(0.01, 9);
		const at = Math.round((triggerAtS ?? 0) * 50_000);
		expect(channels[0]?.[at - 1]).toBeLessThan(1.2);
		expect(channels[0]?.[at]).toBeGreaterThanOrEqual(1.2);
		const never = new BenchScope(vehicle).capture({
			probes: [{ tip: 'brake.16' }],
			rateHz: 1000,
			durationS: 0.1,
			trigger: { ...trigger, volts: 40 }
		});
		expect(never).toEqual({ ok: false, error: 'No trigger came.' });
	});

	it('its noise has the effective value that was asked for, and no mean', () => {
		const taken = capture(vehicleOf(MARLOW), { tips: ['battery'], noiseVolts: 0.02, durationS: 2 });
		const off = Array.from(taken.channels[0] ?? [], (volts) => volts - 12.5);
		const mean = off.reduce((a, b) => a + b, 0) / off.length;
		expect(Math.abs(mean)).toBeLessThan(0.001);
		expect(Math.sqrt(off.reduce((sum, v) => sum + v * v, 0) / off.length)).toBeCloseTo(0.02, 3);
	});

	it('refuses what no instrument can do', () => {
		const scope = new BenchScope(vehicleOf(MARLOW));
		const probe = { tip: 'battery' };
		for (const request of [
			{ probes: [], rateHz: 1000, durationS: 1 },
			{ probes: [probe, probe, probe, probe, probe], rateHz: 1000, durationS: 1 },
			{ probes: [{ tip: 'nowhere' }], rateHz: 1000, durationS: 1 },
			{ probes: [probe], rateHz: 1e9, durationS: 1 },
			{ probes: [probe], rateHz: 1e6, durationS: 100 },
			{ probes: [probe], rateHz: 1000, durationS: Number.NaN }
		]) {
			expect(scope.capture(request).ok).toBe(false);
		}
	});

	it('the weaker the field, the narrower the wave above a threshold', () => {
		expect(highShare(0)).toBe(0.5);
		expect(highShare(0.5)).toBeCloseTo(1 / 3, 9);
		expect(highShare(2)).toBe(0);
	});
});

describe('a signal source in place of a sensor', () => {
	it('a generator of f hertz makes the module read f·C/N, which proves harness, input and logic', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('sensor-dead', 'rear-left'));
		vehicle.plug('rear-left', false);
		expect(holdSource(vehicle, { kind: 'square', position: 'rear-left', hertz: 100, volts: 5 }).ok).toBe(
			true
		);
		vehicle.modules.get(0x1010)?.clear(null);
		vehicle.advance(3);
		expect(valueOf(vehicle, 'brake', 'D103')).toBeCloseTo(((100 * 2.13) / 46) * 3.6, 1);
		holdSource(vehicle, null);
		vehicle.advance(1);
		expect(valueOf(vehicle, 'brake', 'D103')).toBeNull();
	});

	it('shows nothing through a broken lead: the fault is not at the corner', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('lead-open', 'rear-left'));
		vehicle.plug('rear-left', false);
		holdSource(vehicle, { kind: 'square', position: 'rear-left', hertz: 100, volts: 5 });
		vehicle.advance(3);
		expect(valueOf(vehicle, 'brake', 'D103')).toBeNull();
	});

	it('the sensor of another wheel by jumper leads speaks for this one', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('sensor-dead', 'front-left'));
		expect(holdSource(vehicle, { kind: 'mate', position: 'front-left', from: 'front-right' }).ok).toBe(false);
		vehicle.plug('front-left', false);
		vehicle.plug('front-right', false);
		expect(holdSource(vehicle, { kind: 'mate', position: 'front-left', from: 'front-right' }).ok).toBe(true);
		vehicle.modules.get(0x1010)?.clear(null);
		spinning(vehicle, 'front-right', 15);
		expect(valueOf(vehicle, 'brake', 'D101')).toBeCloseTo(15, 0);
		expect(valueOf(vehicle, 'brake', 'D102')).toBeNull();
	});

	it('a sine drives the input of a passive sensor only above its threshold', () => {
		const read = (volts: number) => {
			const vehicle = vehicleOf(SKIFF);
			vehicle.plug('rear-left', false);
			holdSource(vehicle, { kind: 'sine', position: 'rear-left', hertz: 200, volts });
			vehicle.modules.get(0x1011)?.clear(null);
			vehicle.advance(2);
			return valueOf(vehicle, 'brake', 'D103');
		};
		expect(read(0.02)).toBe(0);
		expect(read(1)).toBeCloseTo(((200 * 2.02) / 44) * 3.6, 0);
	});

	it('a resistor of the right size makes an open circuit look whole, a jumper makes it a short', () => {
		const vehicle = vehicleOf(MARLOW);
		vehicle.plug('rear-left', false);
		const volts = (ohms: number) => {
			holdSource(vehicle, { kind: 'resistor', a: 'rear-left.1:w', b: 'rear-left.2:w', ohms });
			return meter(vehicle, 'volts-dc', 'brake.16', 'brake.2').value ?? 0;
		};
		// The feed over resistor, sense resistor and the feed's own 10 Ω.
		expect(volts(1600)).toBeCloseTo((12.1 * 115) / (1600 + 115 + 10), 1);
		holdSource(vehicle, { kind: 'jumper', a: 'rear-left.1:w', b: 'rear-left.2:w' });
		expect(meter(vehicle, 'volts-dc', 'brake.16', 'brake.2').value).toBeGreaterThan(10);
		holdSource(vehicle, { kind: 'lamp', a: 'rear-left.1:w', b: 'body' });
		expect(meter(vehicle, 'volts-dc', 'rear-left.1:w').value).toBeLessThan(6);
	});

	it('stays on while a fault elsewhere comes and goes', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('sensor-plug-loose', 'front-left'));
		vehicle.plug('rear-left', false);
		holdSource(vehicle, { kind: 'jumper', a: 'rear-left.1:w', b: 'rear-left.2:w' });
		const states = new Set<string | null>();
		for (let i = 0; i < 60; i++) {
			vehicle.wiggle('front-left');
			vehicle.advance(0.1);
			states.add(vehicle.world.wheels[0]?.circuit?.fault ?? null);
			expect(meter(vehicle, 'volts-dc', 'brake.16', 'brake.2').value).toBeGreaterThan(10);
		}
		expect(states).toEqual(new Set([null, 'open']));
	});

	it('steel waved before a passive sensor is counted, before an active one not', () => {
		const skiff = vehicleOf(SKIFF);
		expect(skiff.waveSteel('rear-left', 20)).toBe(true);
		let seen = 0;
		for (let i = 0; i < 100; i++) {
			skiff.advance(0.02);
			seen = Math.max(seen, valueOf(skiff, 'brake', 'D103') ?? 0);
		}
		expect(seen).toBeGreaterThan(0.5);
		expect(vehicleOf(MARLOW).waveSteel('rear-left', 5)).toBe(false);
	});
});

describe('hands', () => {
	it('a wiggle at the right place makes a loose plug let go, at another not', () => {
		const drops = (at: string) => {
			const vehicle = vehicleOf(MARLOW, benchFault('sensor-plug-loose', 'rear-left'));
			let gone = 0;
			for (let i = 0; i < 10; i++) {
				vehicle.wiggle(at);
				for (let k = 0; k < 50; k++) {
					vehicle.advance(0.1);
					if (vehicle.world.wheels[2]?.circuit?.fault === 'open') gone += 1;
				}
			}
			return gone;
		};
		expect(drops('rear-left')).toBeGreaterThan(5);
		expect(drops('rear-right')).toBe(0);
	});

	it('water shows a leak in a dry bay', () => {
		const vehicle = vehicleOf(MARLOW, benchFault('sensor-leaks-wet', 'front-left', 0.8));
		vehicle.advance(2);
		expect(vehicle.world.wheels[0]?.circuit?.fault).toBeNull();
		vehicle.spray('front-left');
		vehicle.advance(1);
		expect(vehicle.world.wheels[0]?.circuit?.fault).toBe('ground');
		vehicle.advance(400);
		expect(vehicle.world.wheels[0]?.circuit?.fault).toBeNull();
	});

	it('an opened plug makes codes by itself: made by us', () => {
		const vehicle = vehicleOf(MARLOW);
		vehicle.plug('X21', false);
		vehicle.advance(1);
		expect(vehicle.world.wheels[2]?.circuit?.fault).toBe('open');
		expect(vehicle.state.open).toEqual(['X21']);
		vehicle.plug('X21', true);
		vehicle.advance(1);
		expect(vehicle.world.wheels[2]?.circuit?.fault).toBeNull();
	});
});

describe('probe points', () => {
	it.each([...vehicleTypes.keys()])(
		'%s: each is a node that can be measured, with a place and minutes',
		(id) => {
			const vehicle = vehicleOf(id);
			const points = probePoints(vehicle.world.type);
			expect(new Set(points.map(({ node }) => node)).size).toBe(points.length);
			for (const { node, where, accessMin } of points) {
				expect(vehicle.hasNode(node), node).toBe(true);
				expect(where.length).toBeGreaterThan(3);
				expect(accessMin).toBeGreaterThan(0);
			}
		}
	);

	it('every one of them can be probed with the key off and with every plug open too', () => {
		const vehicle = vehicleOf(MARLOW);
		vehicle.turnKey('off');
		for (const { name } of vehicle.world.type.harness.plugs) vehicle.plug(name, false);
		for (const { role } of vehicle.world.type.modules) vehicle.plug(role, false);
		for (const { node } of probePoints(vehicle.world.type)) {
			expect(Number.isFinite(meter(vehicle, 'volts-dc', node).value), node).toBe(true);
		}
	});
});
