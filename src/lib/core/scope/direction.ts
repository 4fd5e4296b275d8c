import type { Direction } from './findings';
import type { Levels } from './levels';
import type { Pulses } from './pulses';

/** From the start of the speed pulse, in widths of it: where the bit that tells the direction stands. */
const BIT_FROM_WIDTHS = 1.6;
const BIT_TO_WIDTHS = 3.4;
/** Of the looked-at samples, so many at the middle level make a bit. */
const BIT_SHARE = 0.25;
/** Fewer samples to a pulse than this cannot show a bit. */
const LEAST_SAMPLES = 3;

/**
 * Direction of turning from the bit after each speed pulse of a three-level signal: a pulse of the middle level one width
 * after the speed pulse means forwards, none backwards. Null for two levels, or where the sampling is too slow to show it.
 */
export function directionOf(
	volts: Float32Array,
	pulses: Pulses,
	{ lowV, middleV }: Levels,
	timeAt: (sample: number) => number
): Direction | null {
	if (middleV === null) return null;
	const widths = Array.from(
		{ length: pulses.count },
		(_, i) => (pulses.fall[i] ?? NaN) - (pulses.rise[i] ?? NaN)
	);
	const width = widths.filter((value) => value > 0).sort((a, b) => a - b)[widths.length >> 1] ?? 0;
	if (width < LEAST_SAMPLES) return null;
	const threshold = (lowV + middleV) / 2;
	const bits = Array.from({ length: pulses.count }, (_, i) => {
		const start = pulses.rise[i] ?? 0;
		const from = Math.round(start + BIT_FROM_WIDTHS * width);
		const to = Math.round(start + BIT_TO_WIDTHS * width);
		let up = 0;
		for (let k = from; k < to; k++) if ((volts[k] ?? 0) > threshold) up += 1;
		return up > BIT_SHARE * (to - from);
	});
	const changesAt: number[] = [];
	for (let i = 1; i < bits.length; i++)
		// One odd bit is noise; a change lasts.
		if (bits[i] !== bits[i - 1] && bits[i] === bits[i + 1] && bits[i - 1] === bits[i - 2])
			changesAt.push(timeAt(pulses.rise[i] ?? 0));
	const forwards = bits.filter((bit) => bit).length;
	return { forwards, backwards: bits.length - forwards, changesAt };
}
