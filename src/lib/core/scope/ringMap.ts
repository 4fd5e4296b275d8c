import type { Pulses } from './pulses';
import type { Rhythm } from './periods';

/** One turn of a ring, as the mean of all turns of a capture: what there is at each tooth. */
export interface RingMap {
	teeth: number;
	turns: number;
	/** Time to the next tooth against the mean one; 0 where no pulse was seen. */
	period: number[];
	/** Height of the pulse against the median one, speed taken out; 0 where no pulse was seen. */
	height: number[];
	/** Share of its period that the pulse is up. */
	duty: number[];
	/** Share of the turns in which the tooth was seen. */
	seen: number[];
}

/** Height of each pulse, peak to peak. */
export const heightsOf = ({ count, top, bottom }: Pulses): Float64Array =>
	Float64Array.from({ length: count }, (_, i) => {
		const below = Number.isFinite(bottom[i] ?? NaN) ? (bottom[i] ?? 0) : (bottom[i - 1] ?? 0);
		return (top[i] ?? 0) - below;
	});

/** Time from each pulse to the next as a share of what the pulses around it take; a pause counts one tooth. */
export function relativePeriods({ period, tooth, pauses }: Rhythm): Float64Array {
	const out = new Float64Array(period.length).fill(NaN);
	const half = 6;
	const paused = new Set(pauses.map(({ after }) => after));
	// A running mean over single periods; pauses are no periods.
	let [sum, n, from, to] = [0, 0, 0, 0];
	const single = (i: number) => !paused.has(i) && (tooth[i + 1] ?? 0) - (tooth[i] ?? 0) === 1;
	for (let i = 0; i < period.length; i++) {
		for (; to < period.length && to <= i + half; to++) {
			if (!single(to)) continue;
			sum += period[to] ?? 0;
			n += 1;
		}
		for (; from < i - half; from++) {
			if (!single(from)) continue;
			sum -= period[from] ?? 0;
			n -= 1;
		}
		if (n > 0 && single(i)) out[i] = (period[i] ?? 0) / (sum / n);
	}
	return out;
}

/** @param startTooth number that the first pulse of the capture has on the ring */
export function ringMapOf(
	pulses: Pulses,
	rhythm: Rhythm,
	teeth: number,
	{ passive, startTooth = 0 }: { passive: boolean; startTooth?: number }
): RingMap | null {
	const { tooth, period, pauses } = rhythm;
	const last = tooth.at(-1) ?? 0;
	const turns = (last + 1) / teeth;
	if (turns < 1) return null;
	const sums = {
		period: new Float64Array(teeth),
		height: new Float64Array(teeth),
		duty: new Float64Array(teeth)
	};
	const counts = { period: new Int32Array(teeth), pulse: new Int32Array(teeth), duty: new Int32Array(teeth) };
	const heights = heightsOf(pulses);
	const relative = relativePeriods(rhythm);
	const paused = new Map(pauses.map((pause) => [pause.after, pause]));
	for (let i = 0; i < pulses.count; i++) {
		if (i > 0 && tooth[i] === tooth[i - 1]) continue;
		const at = ((tooth[i] ?? 0) + startTooth) % teeth;
		counts.pulse[at] = (counts.pulse[at] ?? 0) + 1;
		const long = paused.get(i);
		const own = long ? long.expected : (period[i] ?? period[i - 1] ?? 1);
		// A coil's voltage goes with speed: times the period, speed is out of it.
		sums.height[at] = (sums.height[at] ?? 0) + (heights[i] ?? 0) * (passive ? own : 1);
		const time = long ? long.periods : (relative[i] ?? NaN);
		if (!Number.isNaN(time)) {
			sums.period[at] = (sums.period[at] ?? 0) + time;
			counts.period[at] = (counts.period[at] ?? 0) + 1;
		}
		const up = ((pulses.fall[i] ?? NaN) - (pulses.rise[i] ?? NaN)) / own;
		if (Number.isFinite(up)) {
			sums.duty[at] = (sums.duty[at] ?? 0) + up;
			counts.duty[at] = (counts.duty[at] ?? 0) + 1;
		}
	}
	const mean = (sum: Float64Array, count: Int32Array) =>
		Array.from(sum, (value, k) => ((count[k] ?? 0) > 0 ? value / (count[k] ?? 1) : 0));
	const height = mean(sums.height, counts.pulse);
	const usual = [...height].sort((a, b) => a - b)[teeth >> 1] ?? 1;
	// How often each tooth could have been seen: once a turn, the last turn may be cut.
	const passes = (k: number) => {
		const first = (k - startTooth + teeth) % teeth;
		return first > last ? 0 : Math.floor((last - first) / teeth) + 1;
	};
	return {
		teeth,
		turns,
		period: mean(sums.period, counts.period),
		height: height.map((value) => (usual > 0 ? value / usual : 0)),
		duty: mean(sums.duty, counts.duty),
		seen: Array.from(counts.pulse, (count, k) => (passes(k) > 0 ? Math.min(1, count / passes(k)) : 0))
	};
}

/**
 * First harmonic over one turn: its height against the mean (0 for a ring that runs true), and the share of the variance
 * that it explains. Places at 0 do not count.
 */
export function onceATurn(values: readonly number[]): { swing: number; share: number } {
	const kept = values.filter((value) => value > 0);
	if (kept.length < values.length / 2) return { swing: 0, share: 0 };
	const mean = kept.reduce((sum, value) => sum + value, 0) / kept.length;
	let [cosine, sine, square] = [0, 0, 0];
	for (const [k, value] of values.entries()) {
		if (!(value > 0)) continue;
		const angle = (2 * Math.PI * k) / values.length;
		cosine += (value - mean) * Math.cos(angle);
		sine += (value - mean) * Math.sin(angle);
		square += (value - mean) ** 2;
	}
	const height = (2 * Math.hypot(cosine, sine)) / kept.length;
	return { swing: height / mean, share: square > 0 ? (kept.length * height * height) / 2 / square : 0 };
}
