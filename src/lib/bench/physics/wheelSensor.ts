/**
 * One corner of the vehicle: toothed ring, gap, active two-wire sensor, and its lead to the brake module's sense resistor.
 *
 * The sensor is a current sink of 7 or 14 mA. What the module can see is the current through its own sense resistor and
 * the number of level changes: everything else it must conclude.
 */
export interface WheelCircuit {
	ringTeeth: number;
	circumferenceM: number;
	senseResistorOhms: number;
	/** Resistance of lead and plugs together. An open lead is a very large one. */
	leadOhms: number;
	gapMm: number;
	/** Looseness of the ring or bearing: how far the gap swings at 100 km/h, growing with the square of speed. */
	gapSwingMmAt100: number;
	sensorWorks: boolean;
}

export const OPEN_OHMS = 1e7;
/** A plug with clean pins and a sound lead. */
export const GOOD_LEAD_OHMS = 0.4;
export const GOOD_GAP_MM = 1.1;
/** Beyond this gap the field at the sensor no longer swings far enough to switch it. */
export const LARGEST_GAP_MM = 2.5;

const LOW_CURRENT_A = 0.007;
const HIGH_CURRENT_A = 0.014;
/** The sensor's electronics need this much to work at all. */
const SENSOR_MIN_VOLTS = 4;
const SWING_HZ = 1.7;

/** Tooth frequency f = N·v / C, in Hz (domain calculation 1). */
export const toothFrequencyHz = (circuit: WheelCircuit, wheelMps: number): number =>
	(circuit.ringTeeth * Math.abs(wheelMps)) / circuit.circumferenceM;

/** The gap at this moment: it swings as the loose part turns. */
export function gapNowMm(circuit: WheelCircuit, wheelMps: number, timeS: number): number {
	const share = (wheelMps * 3.6) / 100;
	const swing = circuit.gapSwingMmAt100 * share * share;
	return circuit.gapMm + swing * Math.abs(Math.sin(2 * Math.PI * SWING_HZ * timeS));
}

/** Whether the ring still switches the sensor. */
export const ringSeen = (circuit: WheelCircuit, wheelMps: number, timeS: number): boolean =>
	circuit.sensorWorks && gapNowMm(circuit, wheelMps, timeS) <= LARGEST_GAP_MM;

/**
 * Current in the loop, in amperes: the sink's own level while lead and resistor leave it enough voltage, otherwise what
 * is left through them.
 */
export function loopCurrentA(circuit: WheelCircuit, supplyVolts: number, highLevel: boolean): number {
	if (!circuit.sensorWorks) return 0;
	const sink = highLevel ? HIGH_CURRENT_A : LOW_CURRENT_A;
	const most = Math.max(0, supplyVolts - SENSOR_MIN_VOLTS) / (circuit.leadOhms + circuit.senseResistorOhms);
	return Math.min(sink, most);
}
