/**
 * Lowest and highest of a capture at coarser and coarser steps, so that any span of it is drawn by looking at a few
 * thousand numbers, and no spike is lost. Level 0 holds {@link FIRST_STEP} samples a step, each next one {@link FAN} times more.
 */
export interface Pyramid {
	levels: { step: number; lowest: Float32Array; highest: Float32Array }[];
}

const FIRST_STEP = 64;
const FAN = 8;
const TOP_STEPS = 64;

export function pyramidOf(volts: Float32Array): Pyramid {
	const levels: Pyramid['levels'] = [];
	let [lowest, highest, step] = [volts, volts, 1];
	while (lowest.length > TOP_STEPS) {
		const fan = step === 1 ? FIRST_STEP : FAN;
		const count = Math.ceil(lowest.length / fan);
		const [lows, highs] = [new Float32Array(count), new Float32Array(count)];
		for (let s = 0; s < count; s++) {
			const to = Math.min(lowest.length, (s + 1) * fan);
			let low = Infinity;
			let high = -Infinity;
			for (let i = s * fan; i < to; i++) {
				const [below, above] = [lowest[i] as number, highest[i] as number];
				if (below < low) low = below;
				if (above > high) high = above;
			}
			lows[s] = low;
			highs[s] = high;
		}
		step *= fan;
		[lowest, highest] = [lows, highs];
		levels.push({ step, lowest, highest });
	}
	return { levels };
}

/** Line of a span: for each of so many pixels its lowest and highest; the samples themselves where they are fewer. */
export interface SpanLine {
	/** In samples, not rounded where a pixel holds several. */
	at: Float64Array;
	volts: Float32Array;
}

/**
 * @param from first sample of the span, may lie before the capture
 * @param to sample after its last
 */
export function spanLine(
	volts: Float32Array,
	{ levels }: Pyramid,
	from: number,
	to: number,
	pixels: number
): SpanLine {
	const first = Math.max(0, Math.floor(from) - 1);
	const last = Math.min(volts.length, Math.ceil(to) + 1);
	const count = Math.max(0, last - first);
	if (count <= 2 * pixels)
		return { at: Float64Array.from({ length: count }, (_, i) => first + i), volts: volts.slice(first, last) };
	const each = count / pixels;
	const at = new Float64Array(2 * pixels);
	const line = new Float32Array(2 * pixels);
	for (let p = 0; p < pixels; p++) {
		const [a, b] = [first + Math.floor(p * each), first + Math.floor((p + 1) * each)];
		const [low, high] = extremes(volts, levels, levels.length - 1, a, b);
		// Which came first does not show within a pixel; the line goes on from where it was.
		const before = p > 0 ? (line[2 * p - 1] ?? 0) : low;
		const rising = Math.abs(before - low) <= Math.abs(before - high);
		at[2 * p] = a;
		at[2 * p + 1] = (a + b) / 2;
		line[2 * p] = rising ? low : high;
		line[2 * p + 1] = rising ? high : low;
	}
	return { at, volts: line };
}

/** Lowest and highest of some samples: whole steps from the coarsest level that has some, what sticks out from the finer ones. */
function extremes(
	volts: Float32Array,
	levels: Pyramid['levels'],
	coarsest: number,
	from: number,
	to: number
): [number, number] {
	let [low, high] = [Infinity, -Infinity];
	const level = levels[coarsest];
	if (!level) {
		for (let i = from; i < to; i++) {
			const value = volts[i] as number;
			if (value < low) low = value;
			if (value > high) high = value;
		}
		return [low, high];
	}
	const first = Math.ceil(from / level.step);
	const last = Math.floor(to / level.step);
	if (first >= last) return extremes(volts, levels, coarsest - 1, from, to);
	for (let s = first; s < last; s++) {
		low = Math.min(low, level.lowest[s] ?? Infinity);
		high = Math.max(high, level.highest[s] ?? -Infinity);
	}
	for (const [a, b] of [
		[from, first * level.step],
		[last * level.step, to]
	] as const) {
		if (a >= b) continue;
		const [below, above] = extremes(volts, levels, coarsest - 1, a, b);
		low = Math.min(low, below);
		high = Math.max(high, above);
	}
	return [low, high];
}
