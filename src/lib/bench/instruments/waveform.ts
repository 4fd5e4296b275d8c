import {
	BIT_S,
	encodeTelegram,
	MOST_STRENGTH,
	PAUSE_BITS,
	PULSE_WIDTHS_S,
	STANDING_EACH_S,
	STANDING_PULSE_EACH_S,
	TELEGRAM_BITS,
	telegramLevel
} from '../../core/electrical/sensorTelegrams';
import { HIGH_A, LOW_A } from '../../core/electrical/twoWire';
import type { SensorKind } from '../../../../library';
import { fieldOf, type Ring } from '../physics/ring';
import { EMF_PER_HZ, SPEED_PULSE_A, type WheelCircuit } from '../physics/wheelCircuit';

/** Points a tooth: enough for the shape of a sine. */
const PER_TOOTH = 64;

/**
 * The shape of a sensor's signal over one turn of its ring, in {@link PER_TOOTH} points a tooth.
 *
 * Active: 1 while the field of a tooth is above the sensor's threshold, else 0. Passive: the field's change, −1 to 1 times the
 * field of the tooth, to be multiplied by frequency.
 *
 * @param need field a tooth must have to be seen
 */
export function shapeOf(
	kind: SensorKind,
	ring: Ring,
	need: number,
	speedMps: number,
	timeS: number
): Float32Array {
	const teeth = ring.at.length;
	const shape = new Float32Array(teeth * PER_TOOTH);
	for (let tooth = 0; tooth < teeth; tooth++) {
		const from = Math.round((ring.at[tooth] ?? 0) * shape.length);
		const next = tooth + 1 < teeth ? Math.round((ring.at[tooth + 1] ?? 0) * shape.length) : shape.length;
		const field = fieldOf(ring, tooth, speedMps, timeS);
		if (kind === 'passive') {
			for (let i = from; i < next; i++)
				shape[i] = field * Math.sin((2 * Math.PI * (i - from)) / PER_TOOTH) * within(i - from);
		} else if (field >= need) {
			shape.fill(1, from, Math.min(next, from + Math.round(highShare(need / field) * PER_TOOTH)));
		}
	}
	return shape;
}

/** Share of a pitch for which a wave of height 1 stands above a threshold: the weaker the field, the narrower. */
export const highShare = (threshold: number): number => 0.5 - Math.asin(Math.min(1, threshold)) / Math.PI;

/** A widened gap behind a tooth is flat: the tooth's own wave ends after its pitch. */
const within = (point: number) => (point < PER_TOOTH ? 1 : 0);

/** What a sensor says of the field: its strength in three bits, and whether it only just switches. */
export interface FieldTold {
	strength: number;
	weak: boolean;
}

/** With so little more than it needs a sensor says that its reserve is used up. */
const RESERVE = 1.35;
/** Steps of the strength that it tells, in octaves. */
const STEP_OCTAVES = 0.5;

/** @param need field a tooth must have to be seen */
export function fieldTold(ring: Ring, need: number, speedMps: number, timeS: number): FieldTold {
	let least = Infinity;
	for (let tooth = 0; tooth < ring.at.length; tooth++) {
		const field = fieldOf(ring, tooth, speedMps, timeS);
		// A tooth that is gone says nothing of the field.
		if (field >= need) least = Math.min(least, field);
	}
	if (!Number.isFinite(least)) return { strength: 0, weak: true };
	const reserve = least / need;
	const strength = Math.min(MOST_STRENGTH, Math.floor(Math.log2(reserve) / STEP_OCTAVES));
	return { strength, weak: reserve < RESERVE };
}

/** Of a wheel's sensor at a moment: what makes its signal. */
export interface Driven {
	kind: SensorKind;
	circuit: WheelCircuit;
	shape: Float32Array;
	toothHz: number;
	forwards: boolean;
	told: FieldTold;
}

/** Amperes (passive: volts of the coil) of a sensor at an angle. @param timeS of the vehicle: what it sends at a standstill comes by the clock */
export function drivenBy(driven: Driven, turn: number, timeS: number): number {
	const { kind, circuit, shape, toothHz } = driven;
	const at = (turn - Math.floor(turn)) * shape.length;
	switch (kind) {
		case 'passive':
			return (shape[at | 0] ?? 0) * EMF_PER_HZ * toothHz;
		case 'two-wire-direction':
			return telegramAmps(driven, at, timeS);
		case 'two-wire-pulse-width':
			return pulseAmps(driven, at, timeS);
		default:
			return (shape[at | 0] ?? 0) > 0.5 ? circuit.highA : circuit.lowA;
	}
}

const TELEGRAM_S = (1 + PAUSE_BITS + TELEGRAM_BITS) * BIT_S;

function telegramAmps(
	{ circuit, shape, toothHz, forwards, told }: Driven,
	at: number,
	timeS: number
): number {
	const share = circuit.highA / SPEED_PULSE_A;
	const stands = toothHz < 1 / STANDING_EACH_S;
	const sinceS = stands ? timeS % STANDING_EACH_S : sinceEdgeS(shape, at, toothHz, forwards, TELEGRAM_S);
	if (sinceS === null || sinceS > TELEGRAM_S) return circuit.lowA;
	const bits = encodeTelegram({ ...told, directionKnown: !stands, forwards });
	switch (telegramLevel(bits, sinceS)) {
		case 'pulse':
			return stands ? Math.max(circuit.lowA, HIGH_A * share) : circuit.highA;
		case 'bit':
			return Math.max(circuit.lowA, HIGH_A * share);
		case 'low':
			return Math.min(LOW_A, circuit.lowA);
	}
}

function pulseAmps({ circuit, shape, toothHz, forwards, told }: Driven, at: number, timeS: number): number {
	const { weak, backwards, forwards: ahead, standing } = PULSE_WIDTHS_S;
	if (toothHz < 1 / STANDING_PULSE_EACH_S)
		return timeS % STANDING_PULSE_EACH_S < standing ? circuit.highA : circuit.lowA;
	const width = told.weak ? weak : forwards ? ahead : backwards;
	const sinceS = sinceEdgeS(shape, at, toothHz, forwards, width);
	return sinceS !== null && sinceS < width ? circuit.highA : circuit.lowA;
}

/** Seconds since the edge at which the last tooth was seen; null where that was longer ago than somebody asks. */
function sinceEdgeS(
	shape: Float32Array,
	at: number,
	toothHz: number,
	forwards: boolean,
	mostS: number
): number | null {
	const length = shape.length;
	const most = Math.min(length, Math.ceil(mostS * toothHz * PER_TOOTH) + 1);
	const valueAt = (point: number) => shape[((point % length) + length) % length];
	// Backwards the tooth is entered from its other end.
	const back = forwards ? -1 : 1;
	for (let n = 0, point = at | 0; n <= most; n++, point += back)
		if (valueAt(point) && !valueAt(point + back)) {
			const edge = forwards ? point : point + 1;
			return Math.abs(at - edge) / PER_TOOTH / toothHz;
		}
	return null;
}
