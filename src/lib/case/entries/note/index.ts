import { entryKind, quote } from '../kind';
import { Note } from './payload';

export const note = entryKind('note', Note, {
	about: 'Words that somebody wants kept.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ text }) => quote('Note', text),
	search: { part: 'notes', of: 'each', words: ({ text }) => [text] }
});
