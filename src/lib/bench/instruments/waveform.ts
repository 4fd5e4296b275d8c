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

/** Points from a wave's beginning to a place within it: a cracked ring's teeth stand anywhere. */
function since(shape: Float32Array, at: number): number {
	let start = at | 0;
	while (start > 0 && shape[start - 1]) start -= 1;
	return at - start;
}

/** Points from a place within a wave to the wave's end. */
function leftOf(shape: Float32Array, at: number): number {
	let end = at | 0;
	while (shape[end]) end += 1;
	return end - at;
}

const PULSE_S = 50e-6;

/** Amperes (passive: volts of the coil) of a sensor at an angle. */
export function drivenBy(
	kind: SensorKind,
	circuit: WheelCircuit,
	shape: Float32Array,
	turn: number,
	toothHz: number,
	forwards: boolean
): number {
	const at = (turn - Math.floor(turn)) * shape.length;
	const value = shape[at | 0] ?? 0;
	switch (kind) {
		case 'passive':
			return value * EMF_PER_HZ * toothHz;
		case 'two-wire-direction': {
			if (value === 0 || toothHz === 0) return circuit.lowA;
			// Backwards the tooth is entered from its other end.
			const into = forwards ? since(shape, at) : leftOf(shape, at);
			const sinceS = into / PER_TOOTH / toothHz;
			const share = circuit.highA / SPEED_PULSE_A;
			if (sinceS < PULSE_S) return circuit.highA;
			// The bit after the pulse tells the direction.
			return sinceS >= 2 * PULSE_S && sinceS < 3 * PULSE_S && forwards
				? HIGH_A * share
				: Math.min(LOW_A, circuit.lowA);
		}
		default:
			return value > 0.5 ? circuit.highA : circuit.lowA;
	}
}
