import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { SensorKind } from '../../../../library/sensorKinds';
import { HIGH_A, LOW_A } from '../../core/electrical/twoWire';
import type { ModuleType, Position, VehicleType } from '../../../../library';
import { FEED_OHMS } from './internals';
import { nodeVolts, type Solution } from './network';
import { LARGEST_GAP_MM, spacingLoss } from './ring';
import { NO_SCATTER, type Scatter } from './scatter';
import { pinFor } from './wiring';

/** A wheel speed sensor as it is, whatever its family. */
export interface Sensor {
	/** False: no current, no switching, no coil. */
	works: boolean;
	/** Field it needs against a usual one: 2 = half as sensitive. */
	dullness: number;
	/** Passive: coil resistance at 20 °C. */
	coilOhms20C: number;
	/** Active: never switches, stays at this level. */
	stuckAt: 'low' | 'high' | null;
	/** Pulses that come from outside and not from the ring, per second. */
	spuriousHz: number;
}

export const soundSensor = ({ threshold, coilOhms: coil }: Scatter = NO_SCATTER): Sensor => ({
	works: true,
	dullness: threshold,
	coilOhms20C: 1_100 * coil,
	stuckAt: null,
	spuriousHz: 0
});

/** Temperature coefficient of copper. */
export const coilOhms = (ohms20C: number, temperatureC: number): number =>
	ohms20C * (1 + 0.00393 * (temperatureC - 20));

/** The two-wire kind with direction has a speed pulse of its own above both levels. */
export const SPEED_PULSE_A = 0.028;
/** Sensor electronics need this much to work. */
export const SENSOR_MIN_V = 4;
/** Saturated output of a three-wire sensor. */
export const OUTPUT_OHMS = 15;
/** Passive: peak volts per hertz with the ring touching; one volt at 100 Hz and a gap of 1 mm. */
export const EMF_PER_HZ = 0.0266;
/** Output resistance of a signal generator that stands for a coil. */
export const GENERATOR_OHMS = 1000;
/** Passive input: amplitude at the module from which it counts. */
export const PASSIVE_INPUT_V = 0.12;

/** What a wheel's circuit does to its sensor's signal, from one solution of the network. */
export interface WheelCircuit {
	/** Electrical fault that the module can tell apart at standstill. */
	fault: 'open' | 'ground' | 'supply' | null;
	/** Whether the levels that reach the module are apart enough to be counted. */
	edges: boolean;
	/** Passive: share of the coil's own voltage that reaches the input. */
	gain: number;
	/** Currents out of the sensor's terminals for its two levels, in amperes, and where they flow. */
	lowA: number;
	highA: number;
	from: string;
	to: string;
}

const BROKEN: WheelCircuit = { fault: null, edges: false, gain: 0, lowA: 0, highA: 0, from: '', to: '' };

/**
 * @param module the one that reads the sensor
 * @param side whose pins the current source is on: the sensor's own, or the harness's at its open plug
 */
export function wheelCircuit(
	type: VehicleType,
	module: ModuleType,
	position: Position,
	sensor: Sensor,
	solution: Solution,
	side: 'sensor' | 'harness' = 'sensor'
): WheelCircuit {
	const feed = pinFor(module, `feed ${position}`);
	const signal = pinFor(module, `signal ${position}`);
	if (!feed || !signal) return BROKEN;
	const at = (pin: number) => (side === 'sensor' ? `${position}.${pin}` : `${position}.${pin}:w`);
	const pins = { feed, signal, at, role: module.role };
	const family = likeliestFamilyAt(type, position);
	switch (family) {
		case 'passive':
			return passiveCircuit(pins, sensor, solution);
		case 'three-wire':
			return threeWireCircuit(pins, sensor, solution);
		default:
			return twoWireCircuit(pins, sensor, solution, type.senseResistorOhms, family === 'two-wire-direction');
	}
}

interface Pins {
	feed: string;
	signal: string;
	/** Node of a sensor pin, by its number. */
	at: (pin: number) => string;
	role: string;
}

const OPEN_BELOW_A = 0.003;
/** Return current that only a wire at supply can push through the sense resistor. */
const SUPPLY_ABOVE_A = 0.04;
/** Feed current that does not come back: it goes to the body. */
const LEAK_ABOVE_A = 0.006;
/** Levels a two-wire input tells apart: hysteresis around 10.5 mA, around 20 mA for speed pulses. */
const TOOTH_ABOVE_A = 0.0115;
const IDLE_BELOW_A = 0.0095;
const PULSE_ABOVE_A = 0.02;

function twoWireCircuit(
	{ feed, signal, at, role }: Pins,
	sensor: Sensor,
	solution: Solution,
	senseOhms: number,
	withDirection: boolean
): WheelCircuit {
	const net = solution.signals;
	const [from, to, ground] = [at(1), at(2), `${role}~ground`];
	const acrossOpen = nodeVolts(solution, from) - nodeVolts(solution, to);
	const behind = net.resistanceOhms(from, to);
	const most = Math.max(0, (acrossOpen - SENSOR_MIN_V) / behind);
	const level = (amps: number) => (sensor.works ? Math.min(amps, most) : 0);
	const top = withDirection ? SPEED_PULSE_A : HIGH_A;
	const lowA = level(sensor.stuckAt === 'high' ? top : LOW_A);
	const highA = level(sensor.stuckAt === 'low' ? LOW_A : top);
	const sense = (amps: number) =>
		(net.volts(signal) - net.volts(ground) + amps * net.loopTransferOhms(from, to, signal, ground)) /
		senseOhms;
	const rail = net.volts(`${role}~supply`);
	const feedVolts = net.volts(feed) + lowA * net.loopTransferOhms(from, to, feed, ground);
	const fed = (rail - feedVolts) / FEED_OHMS;
	const back = sense(lowA);
	let fault: WheelCircuit['fault'] = null;
	if (back > SUPPLY_ABOVE_A) fault = 'supply';
	else if (fed - back > LEAK_ABOVE_A) fault = 'ground';
	else if (back < OPEN_BELOW_A) fault = 'open';
	const edges = back < IDLE_BELOW_A && sense(highA) > (withDirection ? PULSE_ABOVE_A : TOOTH_ABOVE_A);
	return { fault, edges, gain: 1, lowA, highA, from, to };
}

/** The line of a three-wire sensor is low below this and high above that. */
const LINE_LOW_V = 2.5;
const LINE_HIGH_V = 5.5;
const LINE_SUPPLY_V = 9.5;

/** A break in the line of a three-wire sensor looks like a tooth that never comes: only its feed is watched at standstill. */
function threeWireCircuit(
	{ feed, signal, at, role }: Pins,
	sensor: Sensor,
	solution: Solution
): WheelCircuit {
	const net = solution.signals;
	const [line, reference, ground] = [at(2), at(3), `${role}~ground`];
	const fed = nodeVolts(solution, at(1)) - nodeVolts(solution, reference);
	const alive = sensor.works && fed >= SENSOR_MIN_V && sensor.stuckAt !== 'high';
	const open = nodeVolts(solution, line) - nodeVolts(solution, reference);
	const pulled = alive ? Math.max(0, open / (net.resistanceOhms(line, reference) + OUTPUT_OHMS)) : 0;
	const rest = net.volts(signal) - net.volts(ground);
	const low = rest + pulled * net.loopTransferOhms(line, reference, signal, ground);
	let fault: WheelCircuit['fault'] = null;
	if (rest > LINE_SUPPLY_V) fault = 'supply';
	else if (net.volts(feed) - net.volts(ground) < SENSOR_MIN_V && net.volts(`${role}~eight`) > SENSOR_MIN_V)
		fault = 'ground';
	const lowA = sensor.stuckAt === 'low' ? pulled : 0;
	return {
		fault,
		edges: rest > LINE_HIGH_V && low < LINE_LOW_V,
		gain: 1,
		lowA,
		highA: pulled,
		from: line,
		to: reference
	};
}

const BIAS_OPEN_V = 2.5;
const COMMON_LOW_V = 1.2;
const COMMON_HIGH_V = 4.2;

function passiveCircuit({ feed, signal, at, role }: Pins, sensor: Sensor, solution: Solution): WheelCircuit {
	const net = solution.signals;
	const [from, to, ground] = [at(1), at(2), `${role}~ground`];
	const [plus, minus] = [net.volts(feed) - net.volts(ground), net.volts(signal) - net.volts(ground)];
	const common = (plus + minus) / 2;
	let fault: WheelCircuit['fault'] = null;
	if (common > COMMON_HIGH_V) fault = 'supply';
	else if (common < COMMON_LOW_V) fault = 'ground';
	else if (plus - minus > BIAS_OPEN_V) fault = 'open';
	// The coil's voltage is a current through its own resistance, which is part of the network.
	const gain = sensor.works ? Math.abs(net.loopTransferOhms(to, from, feed, signal)) : 0;
	return { fault, edges: gain > 0, gain, lowA: 0, highA: 0, from, to };
}

/** Field from which a sound active sensor switches. */
export const activeThreshold = (teeth: number): number => spacingLoss(LARGEST_GAP_MM, teeth);

/**
 * Field a tooth needs to be counted at a tooth frequency; infinite where nothing can be. For a passive sensor it falls with
 * frequency: below its lowest speed no tooth is seen.
 */
export function neededField(
	family: SensorKind,
	circuit: WheelCircuit,
	sensor: Sensor,
	coilNowOhms: number,
	frequencyHz: number,
	teeth: number
): number {
	if (!sensor.works || !circuit.edges || sensor.stuckAt !== null) return Infinity;
	if (family !== 'passive') return activeThreshold(teeth) * sensor.dullness;
	const share = circuit.gain / coilNowOhms;
	return (PASSIVE_INPUT_V * sensor.dullness) / Math.max(1e-9, EMF_PER_HZ * frequencyHz * share);
}
