import { type ScopeFinding, firstTimes } from './findings';
import type { LevelSteps, WaveSteps } from './condense';
import type { Levels } from './levels';
import type { Rhythm } from './periods';
import type { Pulses } from './pulses';
import { times, voltWords } from './words';

/** Silence at an end of the capture, in periods, that no slowing wheel explains. */
const SILENT_PERIODS = 6;
const SLOWING = 1.3;
/** How far outside its levels an active signal is no longer itself, in shares of its swing. */
const OUTSIDE = 0.5;
/** A pause this long is more than a spike. */
const DEAD_PERIODS = 3;
/** An excursion shorter than this share of a period is a spike, a longer one a loss. */
const SHORT_SHARE = 0.25;

/** Where the signal stops or starts at full speed. */
export function endPauses(
	pulses: Pulses,
	{ period }: Rhythm,
	length: number
): { sample: number; periods: number }[] {
	const found: { sample: number; periods: number }[] = [];
	if (period.length < 6) return found;
	const [first, last] = [period[0] ?? 0, period.at(-1) ?? 0];
	const start = pulses.rise[0] ?? 0;
	if (start > SILENT_PERIODS * first && first < SLOWING * (period[5] ?? 0))
		found.push({ sample: 0, periods: start / first });
	const end = pulses.rise[pulses.count - 1] ?? 0;
	const rest = length - end;
	if (rest > SILENT_PERIODS * last && last < SLOWING * (period.at(-6) ?? 0))
		found.push({ sample: end, periods: rest / last });
	return found;
}

/** Moments at which the voltage is where neither the sensor nor its noise puts it. */
export interface Excursion {
	sample: number;
	volts: number;
	/** Long enough to be a loss of the signal rather than a spike. */
	long: boolean;
}

/** Whether a sample lies between a pulse and the next. */
export const isWithin = ({ rise }: Pulses, after: number, sample: number): boolean =>
	sample >= (rise[after] ?? 0) && sample <= (rise[after + 1] ?? Infinity);

/** Beyond these an active signal is not itself. */
export function boundsOf({ lowV, highV, noiseV }: Levels): { floor: number; ceiling: number; reach: number } {
	const reach = Math.max(OUTSIDE * (highV - lowV), 8 * noiseV);
	return { floor: lowV - reach, ceiling: highV + reach, reach };
}

/** Runs of samples in which the line is above its upper level or below its lower one. */
export function outsideLevels(
	volts: Float32Array,
	{ step, outside }: LevelSteps,
	pulses: Pulses,
	{ period }: Rhythm,
	levels: Levels
): Excursion[] {
	const found: Excursion[] = [];
	const usual = usualPeriod(period);
	const { floor, ceiling, reach } = boundsOf(levels);
	let [pulse, until] = [0, -1];
	for (const one of outside) {
		if ((one + 1) * step <= until) continue;
		for (let i = Math.max(until, one * step); i < (one + 1) * step; i++) {
			const first = volts[i] ?? 0;
			const above = first > ceiling;
			if (!above && !(first < floor)) continue;
			const from = i;
			let most = first;
			for (; i + 1 < volts.length; i++) {
				const next = volts[i + 1] ?? 0;
				if (above ? next < ceiling - reach / 2 : next > floor + reach / 2) break;
				most = above ? Math.max(most, next) : Math.min(most, next);
			}
			until = i + 1;
			while (pulse + 1 < pulses.count && (pulses.rise[pulse + 1] ?? 0) * step <= from) pulse += 1;
			found.push({
				sample: from / step,
				volts: most,
				long: until - from > SHORT_SHARE * usual(pulse) * step
			});
		}
	}
	return found;
}

/** Median period around a pulse: a spike's own pulses are short. */
const usualPeriod =
	(period: Float64Array) =>
	(i: number): number => {
		const near = period.slice(Math.max(0, i - 6), i + 7).sort();
		return near[near.length >> 1] ?? 1;
	};

/** A wave never changes faster than 2π·f times its amplitude; this much faster is no wave. */
const STEEPER = 2;
const NOISE_JUMP = 9;

/** Jumps of a passive signal that go out and come back within a fraction of a tooth. */
export function waveSpikes(
	volts: Float32Array,
	{ step, jump }: WaveSteps,
	{ count, rise, top, bottom }: Pulses,
	{ period }: Rhythm,
	{ noiseV }: Levels
): Excursion[] {
	const found: Excursion[] = [];
	const usual = usualPeriod(period);
	for (let i = 1; i + 2 < count; i++) {
		const end = Math.floor(rise[i + 1] ?? 0);
		let limit = -1;
		for (let k = Math.ceil(rise[i] ?? 0); k < end; k++) {
			// What noise alone may do is not looked at more closely.
			if ((jump[k] as number) <= NOISE_JUMP * noiseV) continue;
			const samples = usual(i) * step;
			if (limit < 0) {
				const heights = [i - 1, i, i + 1].map((n) => (top[n] ?? 0) - (bottom[n] ?? 0)).sort((a, b) => a - b);
				limit = (STEEPER * Math.PI * (heights[1] ?? 0)) / samples + NOISE_JUMP * noiseV;
			}
			if ((jump[k] as number) < limit) continue;
			for (let n = Math.max(1, k * step); n < (k + 1) * step; n++) {
				const change = (volts[n] ?? 0) - (volts[n - 1] ?? 0);
				if (Math.abs(change) < limit) continue;
				const back = comesBack(volts, n, change, limit, SHORT_SHARE * samples);
				if (back === null) continue;
				found.push({ sample: n / step, volts: volts[n] ?? 0, long: false });
				k = Math.floor(back / step);
				break;
			}
		}
	}
	return found;
}

/** The sample at which the opposite jump follows soon; null where none does. */
function comesBack(
	volts: Float32Array,
	from: number,
	step: number,
	jump: number,
	within: number
): number | null {
	for (let k = from + 1; k <= from + within && k < volts.length; k++) {
		const here = (volts[k] ?? 0) - (volts[k - 1] ?? 0);
		if (Math.sign(here) !== Math.sign(step) && Math.abs(here) >= jump) return k;
	}
	return null;
}

/** Pulses too many and voltages out of place, as findings; the same moment is told once. */
export function extraFindings(
	pulses: Pulses,
	{ extras, period, pauses }: Rhythm,
	outside: readonly Excursion[],
	{ highV }: Levels,
	timeAt: (sample: number) => number
): ScopeFinding[] {
	// While the line is dead its noise goes to and fro over the bounds.
	const dead = (sample: number) =>
		pauses.some(({ after, periods }) => periods > DEAD_PERIODS && isWithin(pulses, after, sample));
	const spikes = outside.filter(({ long, sample }) => !long && !dead(sample));
	// One that falls into a pause is told as that.
	const losses = outside.filter(
		({ long, sample }) => long && !pauses.some(({ after }) => isWithin(pulses, after, sample))
	);
	const near = 2 * (period[0] ?? 1);
	// Where a lost signal comes back it does so in the middle of a tooth.
	const apart = (sample: number) =>
		outside.every((one) => Math.abs(one.sample - sample) > near) &&
		pauses.every(({ after }) =>
			[after, after + 1].every((k) => Math.abs((pulses.rise[k] ?? 0) - sample) > near)
		);
	const added = extras
		.map(({ from, to }) => ({ sample: pulses.rise[narrowest(pulses, from, to)] ?? 0, volts: highV }))
		.filter(({ sample }) => apart(sample));
	const all = [...spikes, ...added].sort((a, b) => a.sample - b.sample);
	const findings: ScopeFinding[] = [];
	if (all.length > 0) {
		const highest = all.reduce((most, { volts }) => (Math.abs(volts) > Math.abs(most) ? volts : most), 0);
		findings.push({
			type: 'spike',
			perRev: false,
			times: firstTimes(all.map(({ sample }) => timeAt(sample))),
			count: all.length,
			value: Number(highest.toFixed(3)),
			text: `Jumps ${times(all.length)}${added.length > 0 ? ', some of them counted as teeth that are not there' : ''}, to ${voltWords(highest)}: picked up from outside, or a contact that springs.`,
			teeth: []
		});
	}
	if (losses.length > 0) {
		const lowest = losses.reduce((most, { volts }) => Math.min(most, volts), Infinity);
		findings.push({
			type: 'dropout',
			perRev: false,
			times: firstTimes(losses.map(({ sample }) => timeAt(sample))),
			count: losses.length,
			value: Number(lowest.toFixed(3)),
			text: `The line leaves its levels ${times(losses.length)} and goes to ${voltWords(lowest)}: a contact opens or a wire touches.`,
			teeth: []
		});
	}
	return findings;
}

/** Of a group of pulses, the one that is up for the shortest time. */
function narrowest({ rise, fall }: Pulses, from: number, to: number): number {
	let [best, shortest] = [from, Infinity];
	for (let i = from; i <= to + 1; i++) {
		const width = (fall[i] ?? Infinity) - (rise[i] ?? 0);
		if (width < shortest) [best, shortest] = [i, width];
	}
	return best;
}
