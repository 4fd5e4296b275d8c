import { entryKind, line } from '../kind';
import { Signature } from './payload';

export const signature = entryKind('signature', Signature, {
	about: 'Closes the thread: who signs for what, and the verdict.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: false,
	line: ({ statement, verdict, outcome, left }) =>
		outcome === 'unproven'
			? line('Closed unproven', [statement, ...(left ?? [])].join(' '), verdict)
			: line('Signed', statement, verdict)
});
