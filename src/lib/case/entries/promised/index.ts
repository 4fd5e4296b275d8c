import { entryKind, line } from '../kind';
import { Promised } from './payload';

export const promised = entryKind('promised', Promised, {
	about: 'When the customer was told that the vehicle is ready: a moment, the words, or both.',
	group: 'said',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ due, words }) =>
		due === null && words === ''
			? line('Nothing is promised any more', '')
			: line('Promised', words || (due ?? ''))
});
