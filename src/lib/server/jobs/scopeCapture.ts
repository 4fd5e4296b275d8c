import { isAtRest } from '../../case/entries/scope-capture/evidence';
import { captureLinks, type ProbedAt } from '../../case/measure/captureLinks';
import { MOST_TEETH, type ScopeCapture } from '../../case/entries/scope-capture/payload';
import { analyseCapture } from '../../core/scope/analyseCapture';
import type { Capture } from '../../core/scope/capture';
import { MOST_TIMES, type ChannelAnalysis, type SensorSays } from '../../core/scope/findings';
import type { RingMap } from '../../core/scope/ringMap';
import { channelWords, saysWeak, WEAK_WORDS } from '../../core/scope/words';
import type { Position } from '../../../../library';
import { upperFirst } from '../../case/words';

/** What a person said of each channel. */
export interface ProbedChannel {
	position: Position | null;
	probe: string;
	at: ProbedAt;
}

const hundredths = (value: number) => Math.round(value * 100) / 100;
const keptRing = ({ teeth, turns, height, seen }: RingMap) => ({
	teeth,
	turns: hundredths(turns),
	height: height.map((one) => Math.min(100, Math.max(0, hundredths(one)))),
	seen: seen.map(hundredths)
});

/** Said of a capture on which nothing pulses, where nobody has said that the wheels turned. */
const AT_REST =
	'The wheel did not turn, or nothing arrives: turn it, say so, and take the capture again. It says nothing as it is.';

/** A sensor that says that it stands is alive. */
const STANDS = 'The wheel did not turn: its sensor says so itself. Turn it, and take the capture again.';
const restWords = (channels: readonly ChannelAnalysis[]): string =>
	channels.some(({ says }) => says && says.standing > 0) ? STANDS : AT_REST;

/** A capture as the thread keeps it: what it is and what its analysis found. The samples are stored beside it. */
export function scopePayload(
	capture: Capture,
	probes: readonly ProbedChannel[],
	about: Pick<ScopeCapture, 'name' | 'typeId' | 'source' | 'teeth' | 'knownGood' | 'turned' | 'samplesSha256'>
): ScopeCapture {
	const analysis = analyseCapture(capture, { teeth: about.teeth ?? undefined });
	const atRest = isAtRest({ channels: analysis.channels, turned: about.turned });
	return {
		...about,
		rateHz: capture.rateHz,
		durationS: analysis.durationS,
		samples: capture.channels[0]?.volts.length ?? 0,
		channels: analysis.channels.map((channel, i) => {
			const {
				name,
				kind,
				lowV,
				highV,
				peakToPeakV,
				pulses,
				medianHz,
				teethPerRev,
				voltsPerHz,
				tooSlow,
				says,
				findings,
				ring
			} = channel;
			const probe = probes[i] ?? { position: null, probe: '', at: 'elsewhere' as const };
			return {
				name,
				...probe,
				kind,
				lowV,
				highV,
				peakToPeakV,
				pulses,
				medianHz,
				teethPerRev,
				voltsPerHz,
				...(tooSlow ? { tooSlow } : {}),
				...(says ? { says: keptSays(says) } : {}),
				// That nothing pulses is no finding of a wheel that may have stood.
				findings: atRest ? [] : findings,
				...(ring && ring.teeth <= MOST_TEETH ? { ring: keptRing(ring) } : {}),
				...(atRest || tooSlow ? { proves: [], implicates: [] } : captureLinks(findings, probe.at))
			};
		}),
		comparison: analysis.comparison?.text ?? null,
		verdict: atRest
			? restWords(analysis.channels)
			: [analysis.verdict, ...toldWords(analysis.channels)].join(' ')
	};
}

const keptSays = (says: SensorSays): SensorSays =>
	says.direction
		? { ...says, direction: { ...says.direction, changesAt: says.direction.changesAt.slice(0, MOST_TIMES) } }
		: says;

/** What sensors say of themselves that somebody has to look into. */
const toldWords = (channels: readonly ChannelAnalysis[]): string[] =>
	channels.flatMap(({ name, says }) =>
		says && saysWeak(says) ? [`${upperFirst(channelWords(name))}: ${WEAK_WORDS}.`] : []
	);
