import { merged, noiseFindings, pauseFindings, runOutFindings } from './channelFindings';
import { levelSteps, waveSteps } from './condense';
import type { ChannelAnalysis, SensorSays } from './findings';
import { levelsOf, type Levels } from './levels';
import { middleOf } from './middleOf';
import type { ScopeOptions } from './options';
import { boundsOf, endPauses, extraFindings, outsideLevels, waveSpikes } from './outliers';
import { rhythmOf, type Rhythm } from './periods';
import type { Pulses } from './pulses';
import { dutyOf, quietPulses, shortestPart, stepOf, unblurred } from './quietPulses';
import { heightsOf, ringMapOf } from './ringMap';
import { placesOf } from './placesOf';
import { saysOf, standingTold, withoutStanding } from './telegrams';
import { voltWords } from './words';

/** A capture's channel, whatever made it. @param startS time of the first sample */
export function analyseChannel(
	name: string,
	volts: Float32Array,
	rateHz: number,
	startS: number,
	options: ScopeOptions = {}
): ChannelAnalysis {
	const first = levelsOf(volts);
	if (first.kind === 'flat') return flat(name, first);
	const raw = unblurred(volts, first);
	const step = stepOf(volts, raw);
	const passive = raw.kind === 'passive';
	const { floor, ceiling } = boundsOf(raw);
	const steps = passive ? waveSteps(volts, step) : levelSteps(volts, step, floor, ceiling);
	const { mean } = steps;
	const timeAt = (at: number) => startS + ((at + 0.5) * step - 0.5) / rateHz;
	const levels = { ...raw, noiseV: raw.noiseV / Math.sqrt(step) };
	const all = quietPulses(mean, levels);
	if (all.count < 2 && levels.kind === 'passive') return flat(name, raw);
	const standing = levels.kind === 'active' ? standingTold(all, rateHz / step) : null;
	if (standing) return atRest(name, raw, standing);
	const says = saysOf(mean, all, raw, rateHz / step, timeAt);
	const pulses = says && says.standing > 0 ? withoutStanding(all, rateHz / step) : all;
	const rhythm = rhythmOf(pulses);
	// A silence in which the sensor says that it stands is none.
	const ends = says && says.standing > 0 ? [] : endPauses(pulses, rhythm, mean.length);
	const outside =
		'jump' in steps
			? waveSpikes(volts, steps, pulses, rhythm, raw)
			: outsideLevels(volts, steps, pulses, rhythm, raw);
	const places = placesOf(pulses, rhythm, outside, passive, options.teeth);
	const teethPerRev = options.teeth ?? places;
	const ring =
		places === null
			? null
			: ringMapOf(pulses, rhythm, places, { passive, startTooth: options.startTooth ?? 0 });
	const lowV = passive ? middleOf(pulses.bottom) : levels.lowV;
	const highV = passive ? middleOf(pulses.top) : levels.highV;
	const tooSlow = levels.kind === 'active' && shortestPart(pulses, levels) * step < 2 * LEAST_SAMPLES;
	const judged = merged([
		...pauseFindings(pulses, rhythm, outside, ends, places, options, timeAt),
		...extraFindings(pulses, rhythm, outside, levels, timeAt),
		...runOutFindings(ring, passive, rhythm, pulses),
		...noiseFindings(raw.noiseV, highV - lowV, rhythm, pulses)
	]);
	const hertz = frequencies(pulses, rhythm, rateHz / step);
	return {
		name,
		kind: levels.kind,
		lowV,
		highV,
		middleV: raw.middleV,
		peakToPeakV: highV - lowV,
		pulses: pulses.count,
		...hertz,
		duty: dutyOf(pulses),
		teethPerRev,
		turns: places === null ? null : ((rhythm.tooth.at(-1) ?? 0) + 1) / places,
		noiseV: raw.noiseV,
		voltsPerHz: passive ? slopeOf(pulses, rhythm, rateHz / step) : null,
		says,
		tooSlow,
		findings: tooSlow ? [] : judged,
		ring: tooSlow ? null : ring
	};
}

/** A level that is shorter is seen now and then, and now and then not. */
const LEAST_SAMPLES = 2;

function flat(name: string, { lowV, noiseV }: Levels): ChannelAnalysis {
	const none = { middleV: null, medianHz: null, minHz: null, maxHz: null, duty: null };
	return {
		name,
		kind: 'flat',
		lowV,
		highV: lowV,
		peakToPeakV: 0,
		pulses: 0,
		...none,
		teethPerRev: null,
		turns: null,
		noiseV,
		voltsPerHz: null,
		says: null,
		tooSlow: false,
		findings: [
			{
				type: 'flat',
				perRev: false,
				times: [],
				count: 1,
				value: lowV,
				text: `Stays at ${voltWords(lowV)} throughout: no tooth passes, or none is seen.`,
				teeth: []
			}
		],
		ring: null
	};
}

/** A sensor that says that no tooth passes: it is alive, and its wheel did not turn. */
function atRest(name: string, levels: Levels, says: SensorSays): ChannelAnalysis {
	const still = flat(name, levels);
	const [finding] = still.findings;
	return {
		...still,
		highV: levels.highV,
		says,
		findings: finding
			? [
					{
						...finding,
						text: 'The wheel did not turn: the sensor itself says that no tooth passes. Turn it, and take it again.'
					}
				]
			: []
	};
}

/** Teeth over which a frequency is measured: the edges' places between samples even out. */
const SPAN = 8;

/** Median, slowest and fastest of what the teeth around each moment say; gaps of the ring count as teeth. */
function frequencies(
	{ rise, count }: Pulses,
	{ tooth, pauses }: Rhythm,
	rateHz: number
): Pick<ChannelAnalysis, 'medianHz' | 'minHz' | 'maxHz'> {
	if (count < 3) return { medianHz: null, minHz: null, maxHz: null };
	const span = Math.min(SPAN, count - 1);
	const step = Math.max(1, Math.floor(count / 4_000));
	const lost = pauses.filter(({ periods }) => periods > SPAN).map(({ after }) => after);
	const local: number[] = [];
	for (let i = 0; i + span < count; i += step) {
		const teeth = (tooth[i + span] ?? 0) - (tooth[i] ?? 0);
		// How many teeth a long silence held is a guess.
		if (teeth > 0 && !lost.some((after) => after >= i && after < i + span))
			local.push(((rise[i + span] ?? 0) - (rise[i] ?? 0)) / teeth);
	}
	if (local.length === 0) return { medianHz: null, minHz: null, maxHz: null };
	const sorted = Float64Array.from(local).sort();
	return {
		medianHz: rateHz / (sorted[sorted.length >> 1] ?? NaN),
		minHz: rateHz / (sorted.at(-1) ?? NaN),
		maxHz: rateHz / (sorted[0] ?? NaN)
	};
}

/** Least squares through zero of peak-to-peak volts against frequency: k = Σ a·f / Σ f². */
function slopeOf(pulses: Pulses, { period }: Rhythm, rateHz: number): number | null {
	const heights = heightsOf(pulses);
	let [product, square] = [0, 0];
	for (let i = 0; i < period.length; i++) {
		const f = rateHz / (period[i] ?? 1);
		product += (heights[i] ?? 0) * f;
		square += f * f;
	}
	return square > 0 ? product / square : null;
}
