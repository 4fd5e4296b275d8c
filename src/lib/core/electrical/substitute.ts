/** Tooth frequency that stands for a speed: f = N·v / C. */
export const frequencyForSpeedHz = (teeth: number, speedKmh: number, circumferenceM: number): number =>
	(teeth * (speedKmh / 3.6)) / circumferenceM;

/** The inverse, in km/h. */
export const speedForFrequencyKmh = (teeth: number, hertz: number, circumferenceM: number): number =>
	((hertz * circumferenceM) / teeth) * 3.6;

/**
 * Resistor that draws a current from a feed through the module's sense resistor: R = V/I − R_sense. 12.1 V and 14 mA
 * through 115 Ω want 749 Ω.
 *
 * @throws RangeError where the current cannot be drawn
 */
export function resistorForCurrent(feedVolts: number, amps: number, senseOhms: number): number {
	const ohms = feedVolts / amps - senseOhms;
	if (!(amps > 0 && ohms > 0)) throw new RangeError('the feed is too low for this current');
	return ohms;
}

export type SubstituteOutcome = 'follows' | 'nothing' | 'another-value' | 'not-steady';

/** Half-width of what counts as the same speed. */
const SAME_SHARE = 0.05;
const SAME_KMH = 1;
/** Readings below this are no speed. */
const NOTHING_KMH = 0.5;

/**
 * What live data made of a signal put in place of the sensor's.
 *
 * @param expectedKmh 0 where pulses were made by hand and only *something* is expected
 * @param seenKmh lowest and highest that was shown while the signal was held; null where the module shows no value
 */
export function judgeSubstitute(
	expectedKmh: number,
	seenKmh: { low: number; high: number } | null
): SubstituteOutcome {
	if (seenKmh === null || seenKmh.high < NOTHING_KMH) return 'nothing';
	if (expectedKmh === 0) return 'follows';
	const most = Math.max(SAME_KMH, SAME_SHARE * expectedKmh);
	if (seenKmh.high - seenKmh.low > 4 * most) return 'not-steady';
	const middle = (seenKmh.low + seenKmh.high) / 2;
	return Math.abs(middle - expectedKmh) <= most ? 'follows' : 'another-value';
}
