import { entryKind, line } from '../kind';
import { Withdrawn } from './payload';

export const withdrawn = entryKind('withdrawn', Withdrawn, {
	about:
		'A reading, a capture or a look that counts no longer, and why; it stays on the thread, struck through.',
	group: 'tested',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ what, because }) => line(`Withdrawn: ${what}`, because)
});
