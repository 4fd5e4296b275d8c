/**
 * Resistance hidden in a feed: R = (V_good − V_measured) / I at the known load. 12.1 V that become
 * 9.4 V at 14 mA are 193 Ω.
 *
 * @param amps what flows while the voltage is measured, above 0
 * @throws RangeError where no current flows: without a load nothing shows
 */
export function seriesResistance(goodVolts: number, measuredVolts: number, amps: number): number {
	if (!(amps > 0)) throw new RangeError('a series resistance shows only while current flows');
	return (goodVolts - measuredVolts) / amps;
}
