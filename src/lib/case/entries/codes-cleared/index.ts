import { entryKind, line } from '../kind';
import { count } from '../lineWords';
import { CodesCleared } from './payload';

export const codesCleared = entryKind('codes-cleared', CodesCleared, {
	about: 'Codes cleared, module by module.',
	group: 'done',
	writer: 'work',
	changesVerdicts: true,
	line: ({ modules, otherTool }) => {
		const done = modules.filter(({ outcome }) => outcome === 'cleared');
		const not = modules.filter(({ outcome }) => outcome !== 'cleared');
		return line(
			`Cleared in ${count(done.length, 'module')}${otherTool ? ` with ${otherTool.tool}` : ''}`,
			done.map(({ name }) => name).join(', ') || 'nothing cleared',
			not.length > 0 ? `not: ${not.map(({ name }) => name).join(', ')}` : null
		);
	}
});
