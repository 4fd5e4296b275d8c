import { entryKind, line } from '../kind';
import { Signature } from './payload';

export const signature = entryKind('signature', Signature, {
	about: 'Closes the thread: who signs for what, and the verdict.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: false,
	line: ({ statement, verdict }) => line('Signed', statement, verdict)
});
