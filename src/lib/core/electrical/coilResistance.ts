/** Of copper, per kelvin at 20 °C. */
const COPPER = 0.00393;

/**
 * Coil resistance at 20 °C from one measured at another temperature: R20 = R / (1 + 0.00393·(T − 20)).
 * 1240 Ω in the heat of 60 °C are 1072 Ω.
 *
 * @throws RangeError outside −60 … 200 °C, where the formula does not hold for a wound coil
 */
export function coilResistanceAt20C(ohms: number, temperatureC: number): number {
	if (!(temperatureC >= -60 && temperatureC <= 200)) throw new RangeError('a coil is between −60 and 200 °C');
	return ohms / (1 + COPPER * (temperatureC - 20));
}
