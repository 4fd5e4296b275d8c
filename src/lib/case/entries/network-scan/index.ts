import { entryKind, line } from '../kind';
import { describeCode } from '../../codes/codeWords';
import { count } from '../lineWords';
import { scanSeen } from './evidence';
import { NetworkScan } from './payload';

export const networkScan = entryKind('network-scan', NetworkScan, {
	about: 'All modules asked for their codes, with every request and answer.',
	group: 'read',
	writer: 'work',
	changesVerdicts: true,
	line: ({ modules, outcome, stoppedBecause, modulesExpected, otherTool }) => {
		const codes = modules.flatMap((module) => module.codes);
		const silent = modules.filter(({ answered }) => !answered).map(({ name }) => name);
		return line(
			outcome === 'complete'
				? `Read${otherTool ? ` with ${otherTool.tool}` : ''}, all ${count(modulesExpected, 'module')}`
				: `${otherTool ? `Read with ${otherTool.tool}` : 'Partial scan'}, ${modules.length} of ${modulesExpected}`,
			codes.length > 0 ? [...new Set(codes.map(({ dtc }) => describeCode(dtc).text))].join(', ') : 'no codes',
			stoppedBecause ?? (silent.length > 0 ? `silent: ${silent.join(', ')}` : null)
		);
	},
	photos: ({ otherTool }) => otherTool?.photos ?? [],
	seen: scanSeen
});
