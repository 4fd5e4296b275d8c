import { entryKind, line } from '../kind';
import { count, spanWords } from '../lineWords';
import { isDrive, provokedSeen, roadSeen } from './evidence';
import { LiveRecording } from './payload';
import { triedWords } from './triedWords';

export const liveRecording = entryKind('live-recording', LiveRecording, {
	about: 'Live data, with what was found in it; the samples are kept beside the thread.',
	group: 'read',
	writer: 'work',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ name, source, durationS, findings, verdict, endedBecause, tried = [] }) => {
		const from = source.kind === 'file' ? source.fileName : 'from the vehicle';
		return line(
			`${name || 'Live recording'}, ${spanWords(durationS)}`,
			tried.length > 0 ? triedWords(tried) : verdict,
			endedBecause ?? (findings.length > 0 ? count(findings.length, 'finding') : from)
		);
	},
	seen: (payload, around) =>
		payload.purpose?.what === 'wiggle' || payload.purpose?.what === 'in-gear'
			? provokedSeen(payload)
			: isDrive(payload)
				? roadSeen(payload, around.type)
				: {}
});
