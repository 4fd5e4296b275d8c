import { entryKind, line } from '../kind';
import { Waiting } from './payload';

export const waiting = entryKind('waiting', Waiting, {
	about: 'What the case waits for, and where the vehicle stands.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ what, lift, note }) =>
		line(
			what === 'nothing' ? 'Not waiting' : `Waits for ${what}`,
			[lift, note].filter(Boolean).join('; ') || '–'
		)
});
