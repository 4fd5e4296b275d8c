import { entryKind, line } from '../kind';
import { count } from '../lineWords';
import { ModulesFound } from './payload';

export const modulesFound = entryKind('modules-found', ModulesFound, {
	about: 'Which modules answered when everybody was asked who is there, and what each says of itself.',
	group: 'read',
	writer: 'work',
	changesVerdicts: false,
	line: ({ modules, stoppedBecause }) => {
		const there = modules.filter(({ silent }) => silent === null);
		return line(
			`${count(there.length, 'module')} found`,
			there.map(({ name, address }) => name ?? address).join(', '),
			stoppedBecause
		);
	}
});
