import { analyseChannel } from './analyseChannel';
import type { ScopeOptions } from './options';
import { durationS, type Capture } from './capture';
import { compareChannels } from './compareChannels';
import type { ChannelAnalysis, ScopeAnalysis } from './findings';
import { channelWords } from './words';

/** Everything that a capture says by itself. */
export function analyseCapture(capture: Capture, options: ScopeOptions = {}): ScopeAnalysis {
	const alone = capture.channels.map(({ name, volts }) =>
		analyseChannel(name, volts, capture.rateHz, capture.startS, options)
	);
	const { channels, comparison } = compareChannels(alone);
	return {
		rateHz: capture.rateHz,
		durationS: Number(durationS(capture).toFixed(6)),
		channels,
		comparison,
		verdict: verdictOf(channels)
	};
}

function verdictOf(channels: readonly ChannelAnalysis[]): string {
	const bad = channels.filter(({ findings }) => findings.length > 0);
	if (channels.length === 0) return 'There is no channel in it.';
	const slow = channels.filter(({ tooSlow }) => tooSlow);
	if (bad.length === 0 && slow.length > 0) {
		const names = slow.map(({ name }) => channelWords(name)).join(', ');
		return `${names}: sampled too slowly for its pulses, of which some are not seen. Nothing is judged: take 20,000 samples a second or more.`;
	}
	if (bad.length === 0) {
		const name = channels.length === 1 ? 'The signal is' : 'All signals are';
		return `${name} whole: no gap, no dropout, no spike.`;
	}
	const said = bad.map(
		({ name, findings }) => `${channelWords(name)}: ${findings.map(({ type }) => WORDS[type]).join(', ')}`
	);
	return `${said.join('; ')}.`;
}

const WORDS: Record<ChannelAnalysis['findings'][number]['type'], string> = {
	flat: 'no signal',
	'missing-tooth': 'a gap in the ring',
	dropout: 'drops out',
	spike: 'jumps',
	'run-out': 'runs out of true',
	'low-amplitude': 'too weak',
	noise: 'noisy'
};
