import type { ChannelAnalysis, Comparison, ScopeFinding } from './findings';
import { channelWords, voltWords } from './words';

/** Below this share of its mate a signal is weak. */
const WEAK = 0.6;
/** Alone, a signal is weak below these: what inputs need with a margin. */
const WEAK_ALONE_V = { passive: 0.24, active: 0.25 };
/** Two sound rings differ by less, as a share of a tooth's period. */
const UNEVEN = 0.15;
/** Levels that lie this share of the swing apart do not belong to two sound circuits. */
const MOVED_SHARE = 0.15;
/** Speeds of two wheels that turn together agree within this; more is another ring or tyre. */
const OTHER_RATE = 0.03;

/** Swing of an active signal; volts per hertz of a passive one, so that speed does not matter. */
const strengthOf = ({ kind, voltsPerHz, peakToPeakV }: ChannelAnalysis): number =>
	kind === 'passive' ? (voltsPerHz ?? 0) : peakToPeakV;

/** Finds the best channel, holds the others against it and adds what only a comparison shows. */
export function compareChannels(alone: readonly ChannelAnalysis[]): {
	channels: ChannelAnalysis[];
	comparison: Comparison | null;
} {
	const live = alone.filter(({ kind, pulses }) => kind !== 'flat' && pulses > 2);
	const best = [...live].sort(
		(a, b) => a.findings.length - b.findings.length || strengthOf(b) - strengthOf(a)
	)[0];
	const ratioOf = (one: ChannelAnalysis) =>
		best && one !== best && one.kind === best.kind && strengthOf(best) > 0
			? strengthOf(one) / strengthOf(best)
			: null;
	const channels = alone.map((channel): ChannelAnalysis => {
		const ratio = ratioOf(channel);
		const weak = ratio !== null && ratio < WEAK ? weakAgainst(ratio, best?.name ?? '') : weakAlone(channel);
		return weak ? { ...channel, findings: [...channel.findings, weak] } : channel;
	});
	if (!best || alone.length < 2) return { channels, comparison: null };
	const others = channels
		.filter(({ name }) => name !== best.name)
		.map((one) => ({
			name: one.name,
			frequencyRatio: one.medianHz !== null && best.medianHz !== null ? one.medianHz / best.medianHz : null,
			amplitudeRatio: ratioOf(one),
			levelDifferenceV: one.kind === 'active' && best.kind === 'active' ? one.lowV - best.lowV : null,
			largestToothDifference: toothDifference(one, best)
		}));
	return {
		channels,
		comparison: { reference: best.name, text: comparisonText(best, others, channels), others }
	};
}

const finding = (value: number, text: string): ScopeFinding => ({
	type: 'low-amplitude',
	perRev: false,
	times: [],
	count: 1,
	value: Number(value.toFixed(3)),
	text,
	teeth: []
});

const weakAgainst = (ratio: number, reference: string) =>
	finding(
		ratio,
		`Only ${(100 * ratio).toFixed(0)} % as strong as ${channelWords(reference)} at the same speed: gap, weak ring, sensor or a leak.`
	);

function weakAlone({ kind, peakToPeakV, pulses }: ChannelAnalysis): ScopeFinding | null {
	if (kind === 'flat' || pulses < 3 || !(peakToPeakV < WEAK_ALONE_V[kind])) return null;
	return finding(
		peakToPeakV,
		`Swings by only ${voltWords(peakToPeakV)}: a module may not count it. Compare with its mate.`
	);
}

/** Tooth by tooth, both rings turned so that they fit best. */
function toothDifference(one: ChannelAnalysis, best: ChannelAnalysis): number | null {
	if (!one.ring || !best.ring || one.ring.teeth !== best.ring.teeth) return null;
	const { teeth } = one.ring;
	let least = Infinity;
	for (let turn = 0; turn < teeth; turn++) {
		let most = 0;
		for (let k = 0; k < teeth && most < least; k++)
			most = Math.max(
				most,
				Math.abs((one.ring.period[k] ?? 0) - (best.ring.period[(k + turn) % teeth] ?? 0))
			);
		least = Math.min(least, most);
	}
	return Number(least.toFixed(3));
}

function comparisonText(
	best: ChannelAnalysis,
	others: Comparison['others'],
	channels: readonly ChannelAnalysis[]
): string {
	const said = others.map(
		({ name, frequencyRatio, amplitudeRatio, levelDifferenceV, largestToothDifference }) => {
			const channel = channels.find((one) => one.name === name);
			if (!channel || channel.kind === 'flat') return `${channelWords(name)} shows nothing`;
			if (channel.kind !== best.kind)
				return `${channelWords(name)} is ${channel.kind}, another family of sensor`;
			const rate =
				frequencyRatio !== null && Math.abs(frequencyRatio - 1) > OTHER_RATE
					? `, ${frequencyRatio.toFixed(2)} times as many pulses (another speed, ring or tyre)`
					: '';
			const moved =
				levelDifferenceV !== null && Math.abs(levelDifferenceV) > MOVED_SHARE * best.peakToPeakV
					? `, and lies ${voltWords(Math.abs(levelDifferenceV))} ${levelDifferenceV > 0 ? 'higher' : 'lower'}: current leaks or a wire has resistance`
					: '';
			const teeth =
				largestToothDifference !== null && largestToothDifference > UNEVEN
					? `; held tooth against tooth they differ by up to ${largestToothDifference.toFixed(1)} tooth periods`
					: '';
			return `${channelWords(name)} has ${(100 * (amplitudeRatio ?? 0)).toFixed(0)} % of its strength${rate}${moved}${teeth}`;
		}
	);
	return `Against ${channelWords(best.name)}: ${said.join('; ')}.`;
}
