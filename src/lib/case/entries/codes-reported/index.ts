import { entryKind, line } from '../kind';
import { codeCalled } from '../../../core/codes/spelling';
import { count, listed } from '../lineWords';
import { reportedSeen } from './evidence';
import { CodesReported } from './payload';

export const codesReported = entryKind('codes-reported', CodesReported, {
	about: 'Codes that somebody told: typed, or found in a text and confirmed.',
	group: 'read',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ origin, sourceName, modules }) => {
		const codes = modules.flatMap((module) => module.codes);
		return line(
			origin === 'typed' ? 'Code noted' : `${count(codes.length, 'code')} from ${sourceName || 'a text'}`,
			listed(codes.map(({ code }) => codeCalled(code))),
			'told, not read by us'
		);
	},
	seen: reportedSeen
});
