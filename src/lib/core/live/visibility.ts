/**
 * What a data rate can show. A sample is a moment: an event of a length shorter than the interval
 * falls between two of them as often as not.
 *
 * @param eventS how long the event lasts, in seconds
 * @param rateHz readings a second
 * @param times how often it happens
 * @returns chance from 0 to 1 that at least one reading falls into it
 */
export function chanceToSee(eventS: number, rateHz: number, times = 1): number {
	const once = Math.min(1, Math.max(0, eventS * rateHz));
	return 1 - (1 - once) ** times;
}

/**
 * How long a single missing tooth keeps a signal away: two tooth periods, 2·C/(N·v).
 *
 * @param circumferenceM rolling circumference
 * @returns seconds
 */
export const missingToothS = (teeth: number, circumferenceM: number, speedKmh: number): number =>
	(2 * circumferenceM) / (teeth * (speedKmh / 3.6));

/** A usual ring on a usual tyre, where the vehicle's own are not known. */
export const USUAL_TEETH = 46;
export const USUAL_CIRCUMFERENCE_M = 1.95;
const WALKING_KMH = 6;

/** What the rate cannot show, in a sentence for the technician. */
export function rateSentence(
	rateHz: number,
	teeth = USUAL_TEETH,
	circumferenceM = USUAL_CIRCUMFERENCE_M
): string {
	const toothS = missingToothS(teeth, circumferenceM, WALKING_KMH);
	const chance = chanceToSee(toothS, rateHz);
	const shortest = `Nothing shorter than ${(1000 / rateHz).toFixed(0)} ms shows at ${rateHz.toFixed(rateHz < 10 ? 1 : 0)} readings a second.`;
	const length = `A single missing tooth lasts ${(toothS * 1000).toFixed(0)} ms at walking pace`;
	if (chance >= 0.95)
		return `${shortest} ${length} and just shows; at any higher speed it takes an oscilloscope.`;
	const seen = chance < 0.1 ? 'hardly ever' : `in ${Math.round(chance * 10)} of 10 turns`;
	return `${shortest} ${length} and shows ${seen}, faster still less: that takes an oscilloscope.`;
}
