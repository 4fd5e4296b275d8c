import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { VehicleType } from '../../../../library';
import { codesOf, valueOf } from '../bench.fixture';
import { BenchMeter } from '../instruments/meter';
import { BenchScope } from '../instruments/scope';
import { WHEEL_SPEED_ID } from '../modules/corners';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { pinFor } from '../physics/wiring';
import { ROAD_TEST } from '../technician/liveTests';
import type { BenchVehicle } from '../vehicle';

export type Observations = Record<string, string | number>;

const SAMPLE_S = 0.25;
/** Live values are held against the truth from here. */
const JUDGE_KMH = 5;
const STEADY_MPS2 = 0.1;
const SCOPE_HZ = 20_000;

const readerOf = (type: VehicleType) => {
	const reader = wheelReaderOf(type);
	if (!reader) throw new Error('nobody reads the wheels');
	return reader;
};

/** What a person with a tester, a meter and an oscilloscope would write down about a vehicle, driving it and standing beside it. */
export function observe(vehicle: BenchVehicle): Observations {
	return { ...onTheRoad(vehicle), ...withTheTester(vehicle), ...withInstruments(vehicle) };
}

function onTheRoad(vehicle: BenchVehicle): Observations {
	const { type } = vehicle.world;
	const reader = readerOf(type);
	const worst: Record<string, number> = {};
	const noted = new Set<string>();
	vehicle.drive(ROAD_TEST);
	const note = (key: string, error: number) => (worst[key] = Math.max(worst[key] ?? 0, error));
	while (vehicle.moves) {
		vehicle.advance(SAMPLE_S);
		const { felt, lamps } = vehicle.state;
		for (const one of felt) noted.add(one);
		for (const [lamp, lit] of Object.entries(lamps)) if (lit) noted.add(`${lamp} lamp`);
		if (!vehicle.reachable(parseInt(reader.address, 16))) continue;
		for (const [i, { position }] of type.wheels.entries()) {
			const truth = Math.abs(vehicle.world.motion.wheelMps[i] ?? 0) * 3.6;
			const shown = valueOf(vehicle, reader.role, WHEEL_SPEED_ID[position]);
			const steady = Math.abs(vehicle.world.motion.accelerationMps2) < STEADY_MPS2;
			if (truth > JUDGE_KMH && steady)
				note(`live speed ${position}`, shown === null ? 1 : Math.abs(shown / truth - 1));
		}
	}
	const live = Object.fromEntries(
		Object.entries(worst).map(([key, error]) => [
			key,
			error > 0.9 ? 'gone' : error > 0.3 ? 'drops' : error > 0.012 ? 'off' : 'good'
		])
	);
	return { ...live, noticed: [...noted].sort().join(', ') };
}

function withTheTester(vehicle: BenchVehicle): Observations {
	const silent = vehicle.world.type.modules.filter(
		({ address }) => !vehicle.reachable(parseInt(address, 16))
	);
	const codes = Object.entries(codesOf(vehicle)).flatMap(([role, list]) =>
		list.map((code) => `${role} ${code}`)
	);
	const told: Observations = {
		silent: silent.map(({ role }) => role).join(', '),
		codes: codes.sort().join(', ')
	};
	for (const [role, id] of [
		['steering-angle', 'D110'],
		['yaw', 'D111'],
		['yaw', 'D112'],
		['brake', 'D113']
	] as const) {
		const module = vehicle.module(role);
		if (module && vehicle.reachable(module.address))
			told[`${role} ${id}`] = Math.round(valueOf(vehicle, role, id) ?? -999);
	}
	for (const { role, address } of vehicle.world.type.modules) {
		if (vehicle.reachable(parseInt(address, 16)))
			told[`supply of ${role}`] = valueOf(vehicle, role, 'F442')?.toFixed(1) ?? '';
	}
	return told;
}

function withInstruments(vehicle: BenchVehicle): Observations {
	const { type } = vehicle.world;
	const meter = new BenchMeter(vehicle);
	const scope = new BenchScope(vehicle);
	const seen: Observations = {};
	const reader = readerOf(type);
	for (const { position } of type.wheels) {
		const [feed, signal] = [
			pinFor(reader, `feed ${position}`) ?? '',
			pinFor(reader, `signal ${position}`) ?? ''
		];
		vehicle.spin(position, 10);
		vehicle.advance(1);
		const taken = scope.capture({
			probes: [
				likeliestFamilyAt(type, position) === 'passive' ? { tip: feed, clip: signal } : { tip: signal }
			],
			rateHz: SCOPE_HZ,
			durationS: 0.9,
			noiseVolts: 0
		});
		if (!taken.ok) throw new Error(taken.error);
		seen[`scope ${position}`] = describe(taken.value.channels[0] ?? new Float32Array());
		vehicle.spin(position, 0);
		vehicle.advance(1);
		const read = meter.read({ mode: 'volts-dc', red: `${position}.1:w`, black: 'body' });
		if (read.ok) seen[`feed ${position}`] = read.value.value?.toFixed(0) ?? '';
	}
	vehicle.turnKey('off');
	vehicle.advance(1);
	const segment = type.harness.segments[0]?.name;
	const module = type.modules.find((one) => one.segment === segment && one.role !== 'gateway');
	const ohms = module && meter.read({ mode: 'ohms', red: `${module.role}.3:w`, black: `${module.role}.4:w` });
	if (ohms?.ok)
		seen['bus ohms'] = ohms.value.value === null ? 'over' : Math.round(ohms.value.value / 10) * 10;
	for (const { position } of type.wheels) {
		if (likeliestFamilyAt(type, position) === 'passive') {
			const [feed, signal] = [
				pinFor(reader, `feed ${position}`) ?? '',
				pinFor(reader, `signal ${position}`) ?? ''
			];
			const read = meter.read({ mode: 'ohms', red: feed, black: signal });
			if (read.ok)
				seen[`ohms ${position}`] =
					read.value.value === null ? 'over' : Math.round(read.value.value / 200) * 200;
		}
	}
	vehicle.turnKey('on');
	vehicle.advance(4);
	return seen;
}

/** A waveform in the words of a person: how many waves, how even they are in time and height. */
function describe(volts: Float32Array): string {
	const low = volts.reduce((a, b) => Math.min(a, b), Infinity);
	const high = volts.reduce((a, b) => Math.max(a, b), -Infinity);
	if (high - low < 0.01) return `flat at ${low.toFixed(1)} V`;
	const middle = (low + high) / 2;
	const rises: number[] = [];
	let peak = -Infinity;
	const peaks: number[] = [];
	const widths: number[] = [];
	for (let i = 1; i < volts.length; i++) {
		peak = Math.max(peak, volts[i] ?? 0);
		if ((volts[i - 1] ?? 0) < middle && (volts[i] ?? 0) >= middle) {
			rises.push(i);
			if (rises.length > 1) peaks.push(peak - middle);
			peak = -Infinity;
		}
		if ((volts[i - 1] ?? 0) >= middle && (volts[i] ?? 0) < middle && rises.length > 0)
			widths.push(i - (rises.at(-1) ?? 0));
	}
	const periods = rises.slice(1).map((rise, i) => rise - (rises[i] ?? 0));
	const ratio = (list: number[]) => (list.length > 1 ? Math.max(...list) / Math.min(...list) : 1);
	const uneven = (list: number[], much: number) => (ratio(list) > much ? 'uneven' : 'even');
	const hertz = ((rises.length - 1) * SCOPE_HZ) / Math.max(1, (rises.at(-1) ?? 0) - (rises[0] ?? 0));
	return `${Math.round(hertz / 4) * 4} Hz, ${uneven(periods, 1.25)} in time, ${uneven(widths, 1.4)} in width, ${uneven(peaks, 1.4)} in height, ${(high - low).toFixed(1)} V`;
}

/** What stands out against a sound vehicle. */
export function differences(sound: Observations, seen: Observations): string[] {
	return [...new Set([...Object.keys(sound), ...Object.keys(seen)])]
		.filter((key) => sound[key] !== seen[key])
		.map((key) => `${key}: ${seen[key]}`);
}
