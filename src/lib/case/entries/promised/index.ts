import { format } from 'date-fns/format';
import { entryKind, line } from '../kind';
import { Promised } from './payload';

export const promised = entryKind('promised', Promised, {
	about: 'When the customer was told that the vehicle is ready: a moment, the words, or both.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	// As it was typed, and the moment that was meant: "tomorrow" says nothing a week later.
	line: ({ due, words }) =>
		due === null
			? words === ''
				? line('Nothing is promised any more', '')
				: line('Promised', words)
			: line(`Promised for ${format(new Date(due), 'd MMM HH:mm')}`, words)
});
