/**
 * Voltage across a resistance in series with others: V = U·R / (R + R_series). A coil of 1.1 kΩ between two bias resistors
 * of 10 kΩ from 5 V has 0.26 V across it; a broken one has 5 V.
 *
 * @param ohms Infinity = open
 */
export const dividerVolts = (supplyVolts: number, ohms: number, seriesOhms: number): number =>
	ohms === Infinity ? supplyVolts : (supplyVolts * ohms) / (ohms + seriesOhms);

/**
 * The inverse: the resistance that makes a voltage, Infinity from the full voltage on.
 *
 * @throws RangeError where a passive resistance cannot make the voltage
 */
export function dividerOhms(supplyVolts: number, acrossVolts: number, seriesOhms: number): number {
	if (acrossVolts < 0 || acrossVolts > supplyVolts * 1.02)
		throw new RangeError(`expected 0 to ${supplyVolts} V across it`);
	return acrossVolts >= supplyVolts ? Infinity : (seriesOhms * acrossVolts) / (supplyVolts - acrossVolts);
}
