import { entryKind, line } from '../kind';
import { count } from '../lineWords';
import { channelsTold, scopeSeen } from './evidence';
import { ScopeCapture } from './payload';

export const scopeCapture = entryKind('scope-capture', ScopeCapture, {
	about: 'What an oscilloscope showed, channel by channel; the samples are kept beside the thread.',
	group: 'tested',
	writer: 'work',
	mayBeWithdrawn: true,
	changesVerdicts: false,
	line: (capture) => {
		const { name, verdict, durationS } = capture;
		const found = channelsTold(capture).reduce((sum, { findings }) => sum + findings.length, 0);
		return line(
			`${name || 'Capture'}, ${durationS.toFixed(durationS < 10 ? 2 : 0)} s`,
			verdict,
			found > 0 ? count(found, 'finding') : null
		);
	},
	seen: scopeSeen
});
