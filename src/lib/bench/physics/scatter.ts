/**
 * How the physics of one vehicle differs from what is usual for its kind: factors, 1 where they do not differ. Parts have
 * tolerances, and what is described of a vehicle is never quite what stands in the shop.
 */
export interface Scatter {
	/** Amplitude of the field that a ring brings to its sensor. */
	amplitude: number;
	/** What a tooth needs to be counted, at the sensor or at the input. */
	threshold: number;
	/** Copper, contacts and joints. */
	wiringOhms: number;
	/** Bias and load inside modules; measuring resistors are precise. */
	insideOhms: number;
	coilOhms: number;
	gap: number;
	/** Resistance of what is broken, corroded or chafed. */
	faultOhms: number;
}

export const NO_SCATTER: Scatter = {
	amplitude: 1,
	threshold: 1,
	wiringOhms: 1,
	insideOhms: 1,
	coilOhms: 1,
	gap: 1,
	faultOhms: 1
};

/**
 * One vehicle's differences: each factor between 1 / (1 + share) and 1 + share, even in its logarithm.
 *
 * @param share 0 = none
 * @param random from 0 up to 1
 */
export function drawScatter(share: number, random: () => number): Scatter {
	const scatter = { ...NO_SCATTER };
	for (const name of Object.keys(scatter) as (keyof Scatter)[])
		scatter[name] = (1 + share) ** (2 * random() - 1);
	return scatter;
}
