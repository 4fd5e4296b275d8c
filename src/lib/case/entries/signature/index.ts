import { entryKind, line } from '../kind';
import { count } from '../lineWords';
import { Signature } from './payload';

export const signature = entryKind('signature', Signature, {
	about: 'Closes the thread: who signs for what, and the verdict.',
	group: 'done',
	writer: 'rule',
	changesVerdicts: false,
	line: ({ statement, verdict, outcome, left }) =>
		outcome === 'unproven'
			? line('Closed unproven', statement, `${count(left?.length ?? 0, 'thing')} stood open`)
			: line('Signed', statement, verdict)
});
