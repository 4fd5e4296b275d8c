import { fail, ok, type Result } from '../../core/result';
import type { MeterReading, MeterRequest } from '../../core/electrical/ports';
import type { BenchVehicle } from '../vehicle';
import { seenBetween, type Loop } from './loops';
import { drivenBy, fieldTold, shapeOf, type Driven } from './waveform';

const INPUT_OHMS = 10e6;
/** Test current of the ohms ranges and the most the meter can push. */
const OHMS_TEST_A = 0.0005;
const OHMS_MOST_V = 3;
const OHMS_MOST = 50e6;
/** The alternating ranges fall off above this. */
const AC_CORNER_HZ = 1000;
/** Points of a turn that an average is taken over. */
const POINTS = 4096;

/** A hand-held meter on the wiring of a bench vehicle, with the habits of a real one. */
export class BenchMeter {
	constructor(private readonly vehicle: BenchVehicle) {}

	read({ mode, red, black }: MeterRequest): Result<MeterReading> {
		const { vehicle } = this;
		if (mode === 'amps') return this.amps(red);
		for (const node of [red, black]) {
			if (!vehicle.hasNode(node)) return fail(`This vehicle has no point ${node}.`);
		}
		if (mode === 'ohms') return ok(this.ohms(red, black));
		const { mean, alternating, source } = this.between(red, black);
		// The meter's own ten megohms load what is between its leads.
		const share = INPUT_OHMS / (INPUT_OHMS + source);
		return ok(reading((mode === 'volts-dc' ? mean : alternating) * share, 'V'));
	}

	/** Mean and effective alternating part of the voltage between two nodes while everything turns as it does now. */
	private between(red: string, black: string): { mean: number; alternating: number; source: number } {
		const { world } = this.vehicle;
		const circuits = world.wheels.map((wheel) => wheel.circuit);
		const { rest, loops } = seenBetween(
			world.solution,
			circuits,
			world.wheels.map(({ family }) => family),
			red,
			black
		);
		let mean = rest;
		let square = 0;
		for (const loop of loops) {
			const part = this.averageOf(loop);
			mean += part.mean * loop.ohms;
			square += (part.alternating * loop.ohms) ** 2;
		}
		return {
			mean,
			alternating: Math.sqrt(square),
			source: world.solution.signals.resistanceOhms(red, black)
		};
	}

	/** What one sensor's current averages to over a turn. Standing, it has whatever level its tooth gives. */
	private averageOf({ wheel: index, circuit }: Loop): { mean: number; alternating: number } {
		const { world } = this.vehicle;
		const wheel = world.wheels[index];
		if (!wheel) return { mean: 0, alternating: 0 };
		const kind = wheel.family;
		const mps = world.motion.wheelMps[index] ?? 0;
		const hertz = this.vehicle.turning.toothHz(index);
		const need = this.vehicle.turning.neededFieldOf(index);
		const driven: Driven = {
			kind,
			circuit,
			shape: shapeOf(kind, wheel.ring, need, mps, world.timeS),
			toothHz: hertz,
			forwards: mps >= 0,
			told: fieldTold(wheel.ring, need, mps, world.timeS)
		};
		const scale =
			kind === 'passive' ? 1 / (this.vehicle.electrics.coilOhmsOf(index) * wheel.sensor.dullness) : 1;
		// Telegrams at a standstill are too short and too rare for a meter.
		const amps = (turn: number) => drivenBy(driven, turn, BETWEEN_TELEGRAMS_S) * scale;
		if (mps === 0) return { mean: amps(wheel.rotor.turns), alternating: 0 };
		let sum = 0;
		let squares = 0;
		for (let i = 0; i < POINTS; i++) {
			const value = amps(i / POINTS);
			sum += value;
			squares += value * value;
		}
		const mean = sum / POINTS;
		const effective = Math.sqrt(Math.max(0, squares / POINTS - mean * mean));
		return { mean, alternating: effective / Math.hypot(1, hertz / AC_CORNER_HZ) };
	}

	/**
	 * The meter pushes a small current and divides the voltage by it: right on a dead circuit. On a live one the circuit's
	 * own voltage is divided as well, and the display shows something that is no resistance.
	 */
	private ohms(red: string, black: string): MeterReading {
		const { mean, source } = this.between(red, black);
		const testA = Math.min(OHMS_TEST_A, OHMS_MOST_V / Math.max(1e-3, source));
		const shown = (mean + testA * source) / testA;
		if (shown > OHMS_MOST || mean + testA * source > OHMS_MOST_V * 1.01) return reading(null, 'Ω');
		return reading(shown, 'Ω');
	}

	private amps(element: string): Result<MeterReading> {
		const found = this.vehicle.network.wiring.elements.get(element);
		if (!found) return fail(`This vehicle has no ${element} to put a meter into.`);
		const { mean } = this.between(found.a, found.b);
		return ok(reading(mean / this.vehicle.network.ohmsOf(element), 'A'));
	}
}

const BETWEEN_TELEGRAMS_S = 0.1;

const PREFIXES: [from: number, divide: number, sign: string][] = [
	[1e6, 1e6, 'M'],
	[1e3, 1e3, 'k'],
	[1, 1, ''],
	[0, 1e-3, 'm']
];

/** Four and a half digits, as the display has them. */
function reading(value: number | null, unit: MeterReading['unit']): MeterReading {
	if (value === null) return { value, unit, text: `over the range (${unit})` };
	const size = Math.abs(value);
	const [, divide, sign] = PREFIXES.find(([from]) => size >= from) ?? [0, 1, ''];
	const digits = unit === 'V' ? 3 : 4;
	const shown = unit === 'V' && size < 1 ? { number: value, sign: '' } : { number: value / divide, sign };
	const rounded = Number(shown.number.toPrecision(digits + 1));
	return {
		value: shown.sign === '' ? rounded : rounded * divide,
		unit,
		text: `${Number(rounded.toFixed(digits))} ${shown.sign}${unit}`
	};
}
