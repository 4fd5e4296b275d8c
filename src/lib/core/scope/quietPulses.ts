import { levelsOf, type Levels } from './levels';
import { middleOf } from './middleOf';
import { activePulses, passivePulses, type Pulses } from './pulses';
import { runningMean } from './smooth';

/** Noise above this share of the amplitude is smoothed away before edges are looked for. */
const NOISE_LEFT = 0.05;
/** A window is never longer than this share of a pulse: no gap of a tooth is hidden by it. */
const WINDOW_OF_PULSE = 1 / 6;

/** Edges of the signal; where noise is high, of its running mean over a window far shorter than a pulse. */
export function quietPulses(volts: Float32Array, levels: Levels): Pulses {
	const find = levels.kind === 'active' ? activePulses : passivePulses;
	const amplitude = (levels.highV - levels.lowV) / 2;
	const first = find(volts, levels);
	const wanted = Math.ceil((levels.noiseV / (NOISE_LEFT * amplitude)) ** 2);
	if (wanted < 2 || first.count < 2) return first;
	// Noise makes edges of its own, so the pulses look shorter than they are: each pass sees them better.
	for (let width = 3; ; width = Math.min(wanted, width * 3)) {
		const odd = width | 1;
		const pulses = find(runningMean(volts, odd), { ...levels, noiseV: levels.noiseV / Math.sqrt(odd) });
		if (odd >= wanted || odd * 3 > WINDOW_OF_PULSE * shortestPart(pulses, levels)) return pulses;
	}
}

/** Noise from this share of the span on may have filled the space between two levels. */
const BLURRED = 0.05;
const CALMED_SAMPLES = 1 << 21;

/** The levels once more, of a calmed signal, where noise may have hidden that there are two of them. */
export function unblurred(volts: Float32Array, levels: Levels): Levels {
	if (levels.kind !== 'passive' || levels.noiseV < BLURRED * (levels.highV - levels.lowV)) return levels;
	const part = volts.subarray(0, CALMED_SAMPLES);
	const width = Math.floor(WINDOW_OF_PULSE * shortestPart(quietPulses(part, levels), levels)) | 1;
	const calm = levelsOf(runningMean(part, width));
	return calm.kind === 'active' ? { ...calm, noiseV: levels.noiseV } : levels;
}

/** Stretches that are looked at to see how many samples a pulse has. */
const LOOKS = 8;
const LOOK_SAMPLES = 24_000;
/** Steps in the shorter part of a pulse: edges are then dated to a hundredth of it. */
const STEPS_A_PART = 20;
const LONGEST_STEP = 64;

/** How many samples can be taken together without losing anything of a pulse: seen on a few stretches of the capture. */
export function stepOf(volts: Float32Array, levels: Levels): number {
	if (volts.length < 2 * LOOKS * LOOK_SAMPLES) return 1;
	let shortest = Infinity;
	for (let k = 0; k < LOOKS; k++) {
		const from = Math.floor((k * (volts.length - LOOK_SAMPLES)) / (LOOKS - 1));
		const pulses = quietPulses(volts.subarray(from, from + LOOK_SAMPLES), levels);
		if (pulses.count > 2) shortest = Math.min(shortest, shortestPart(pulses, levels));
	}
	// Longer than a stretch: then the stretch is what is known.
	if (shortest === Infinity) shortest = LOOK_SAMPLES / 10;
	return Math.max(1, Math.min(LONGEST_STEP, Math.floor(shortest / STEPS_A_PART)));
}

/** Twice the samples of the shorter part of a pulse, up or down; of a wave its whole. */
export function shortestPart(pulses: Pulses, { kind }: Levels): number {
	const periods = middleOf(
		Float64Array.from(
			{ length: Math.max(0, pulses.count - 1) },
			(_, i) => (pulses.rise[i + 1] ?? 0) - (pulses.rise[i] ?? 0)
		)
	);
	if (kind === 'passive') return periods;
	const duty = dutyOf(pulses) ?? 0.5;
	return periods * Math.min(duty, 1 - duty) * 2;
}

/** Median share of its period that the signal is up; null where there is no whole period. */
export function dutyOf({ count, rise, fall }: Pulses): number | null {
	const shares: number[] = [];
	const step = Math.max(1, Math.floor(count / 4_000));
	for (let i = 0; i + 1 < count; i += step) {
		const share = ((fall[i] ?? NaN) - (rise[i] ?? 0)) / ((rise[i + 1] ?? 0) - (rise[i] ?? 0));
		if (share > 0 && share < 1) shares.push(share);
	}
	return shares.length > 0 ? middleOf(shares) : null;
}
